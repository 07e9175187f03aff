package oakbasket.server.post;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import oakbasket.core.deadline.WorkingDays.Shift;
import oakbasket.core.letter.LetterKind;
import oakbasket.core.reminder.Forecast;
import oakbasket.core.reminder.PlanChange;
import oakbasket.core.reminder.PlannedLetter;
import oakbasket.core.reminder.QuietHours;
import oakbasket.core.reminder.Recipient;
import oakbasket.core.reminder.ReminderPlan;
import oakbasket.core.reminder.ReminderStep;
import oakbasket.core.round.RoundState;
import oakbasket.server.basket.Baskets;
import oakbasket.server.board.Board;
import oakbasket.server.calendar.Calendars;
import oakbasket.server.contact.Contacts;
import oakbasket.server.lettersetting.LetterSetting;
import oakbasket.server.lettersetting.LetterSettings;
import oakbasket.server.round.Round;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** What the plans of rounds mean for the people in them. */
@Component
public class PlannedLetters {

    /** Letters that will go at one moment if nothing comes in until then. */
    record Coming(Instant at, LetterKind kind, int letters) {
    }

    /** The next letter of one person, or why there is none. */
    record Next(@Nullable Instant at, @Nullable LetterKind kind, @Nullable String reason) {
    }

    private final Calendars calendars;
    private final Contacts contacts;
    private final Baskets baskets;
    private final LetterTable table;
    private final PlanChanges changes;
    private final LetterSettings settings;
    private final QuietPeople quiet;

    PlannedLetters(Calendars calendars, Contacts contacts, Baskets baskets, LetterTable table, PlanChanges changes, LetterSettings settings, QuietPeople quiet) {
        this.calendars = calendars;
        this.contacts = contacts;
        this.baskets = baskets;
        this.table = table;
        this.changes = changes;
        this.settings = settings;
        this.quiet = quiet;
    }

    /** Reads what all people have in common, once for a look at many. */
    public Look look(Instant now) {
        return new Look(now, contacts.zones(), settings.now(), quiet.all(), changes.from(now));
    }

    /** What will go about a round within a time, as things stand. */
    List<Coming> coming(Board.Judged judged, Instant until) {
        return coming(look(judged.now()), judged, until);
    }

    /** The same for one of several rounds, which share a look. */
    List<Coming> coming(Look look, Board.Judged judged, Instant until) {
        if (judged.round().letters().reminders().steps().isEmpty() || judged.round().state() != RoundState.GATHERING) {
            return List.of();
        }
        Map<PlannedLetter, Integer> counts = new HashMap<>();
        for (Board.Row row : judged.rows()) {
            if (look.standing(row).isEmpty()) {
                look.letters(judged.round(), row).stream().filter(letter -> letter.against() == null && letter.at().isAfter(judged.now()) && letter.at().isBefore(until))
                        .forEach(letter -> counts.merge(new PlannedLetter(letter.kind(), letter.at()), 1, Integer::sum));
            }
        }
        List<Coming> coming = new ArrayList<>();
        counts.forEach((letter, people) -> coming.add(new Coming(letter.at(), letter.kind(), people)));
        coming.sort(Comparator.comparing(Coming::at));
        return coming;
    }

    /** The next letter that the plan means for one basket. */
    Next next(Round round, Board.Row row, Instant now) {
        Look look = look(now);
        boolean gathering = round.state() == RoundState.GATHERING;
        Optional<Recipient.Reason> against = Letters.recipient(gathering, row, look.reachable(row.email()), null).against(now);
        if (against.isPresent()) {
            return new Next(null, null, against.get().name());
        }
        return look.letters(round, row).stream().filter(letter -> letter.against() == null && letter.at().isAfter(now)).findFirst().map(letter -> new Next(letter.at(), letter.kind(), null))
                .orElseGet(() -> new Next(null, null, null));
    }

    /** One look at the plans. */
    public final class Look {
        private record When(long round, LocalDate deadline, ZoneId zone, QuietHours quiet) {
        }

        private final Instant now;
        private final Map<Long, String> zones;
        private final LetterSetting office;
        private final Map<Long, QuietHours> quiet;
        private final PlanChanges.Known changed;
        private final Map<When, List<PlannedLetter>> known = new HashMap<>();
        /** Read when first asked for: most looks end before. */
        private @Nullable Map<Long, Instant> last;
        private @Nullable Set<String> refused;
        private @Nullable Map<Long, List<LocalDate>> extensions;

        private Look(Instant now, Map<Long, String> zones, LetterSetting office, Map<Long, QuietHours> quiet, PlanChanges.Known changed) {
            this.now = now;
            this.zones = zones;
            this.office = office;
            this.quiet = quiet;
            this.changed = changed;
        }

        /** The person's zone; the round's where it is not known. */
        public ZoneId zone(Round round, long contactId) {
            String zone = zones.get(contactId);
            return zone == null ? round.zone() : ZoneId.of(zone);
        }

        /** The hours in which a person is not written to: their own, or the office's. */
        QuietHours quiet(long contactId) {
            return quiet.getOrDefault(contactId, office.quiet());
        }

        /** All letters that the plan of a gathering round means for one basket, with what was decided about them. */
        public List<PlannedLetter> letters(Round round, Board.Row row) {
            return PlanChange.applied(asPlanned(round, LocalDate.ofInstant(row.deadline(), round.zone()), row.contactId()), changed.of(row.id()));
        }

        /** All letters that a plan means for somebody with a deadline on this day. */
        public List<PlannedLetter> asPlanned(Round round, LocalDate deadline, long contactId) {
            return letters(round, deadline, zone(round, contactId), quiet(contactId));
        }

        /** All letters that the plan of a parcel means for somebody. @param end the day of its end in the office's zone */
        List<PlannedLetter> ofParcel(List<ReminderStep> steps, LocalDate end, long contactId, ZoneId office) {
            String zone = zones.get(contactId);
            return new ReminderPlan(steps, null, Shift.EARLIER, quiet(contactId)).letters(end, zone == null ? office : ZoneId.of(zone), calendars.days(null));
        }

        private List<PlannedLetter> letters(Round round, LocalDate deadline, ZoneId zone, QuietHours hours) {
            When when = new When(round.id(), deadline, zone, hours);
            return known.computeIfAbsent(when, one -> round.letters().reminders().within(one.quiet()).letters(one.deadline(), one.zone(), calendars.days(round.calendarId())));
        }

        /** Whether the plan of a round means a letter for anybody who could be in it within a time; nobody's basket is looked at. */
        boolean anything(Round round, Instant after, Instant until) {
            Set<ZoneId> everywhere = new HashSet<>(Set.of(round.zone()));
            zones.values().forEach(zone -> everywhere.add(ZoneId.of(zone)));
            Set<QuietHours> hours = new HashSet<>(quiet.values());
            hours.add(office.quiet());
            List<LocalDate> deadlines = new ArrayList<>(extensions().getOrDefault(round.id(), List.of()));
            deadlines.add(LocalDate.ofInstant(round.deadline().instant(), round.zone()));
            return changed.movedInto(round.id(), after, until) || hours.stream().anyMatch(one -> everywhere.stream().anyMatch(zone -> deadlines.stream()
                    .flatMap(deadline -> letters(round, deadline, zone, one).stream()).anyMatch(letter -> letter.at().isAfter(after) && !letter.at().isAfter(until))));
        }

        /** This moment, or the next one at which this person may be written to. */
        public Instant allowed(Round round, long contactId, Instant moment) {
            return round.letters().reminders().within(quiet(contactId)).allowed(moment, zone(round, contactId), calendars.days(round.calendarId()));
        }

        /** When the last letter went to a person within the gap between letters; null where none did. */
        public @Nullable Instant last(long contactId) {
            if (last == null) {
                last = table.lastTo(now.minus(office.gap()));
            }
            return last.get(contactId);
        }

        /** What decides about one basket of a gathering round. */
        Recipient recipient(Board.Row row) {
            return withoutLast(row).after(last(row.contactId()));
        }

        /** The same for somebody who was written to long ago. */
        Recipient withoutLast(Board.Row row) {
            return Letters.recipient(true, row, reachable(row.email()), null).spaced(office.gap(), null);
        }

        /** One basket of a gathering round, for a look ahead. */
        public Forecast.Strand strand(Round round, Board.Row row) {
            return new Forecast.Strand(row.id(), withoutLast(row), letters(round, row));
        }

        /** Somebody who is asked when a draft is opened, for a look ahead. @param basket a number that no basket has */
        public Forecast.Strand strand(Round draft, LocalDate deadline, long basket, long contactId, String email) {
            return new Forecast.Strand(basket, new Recipient(true, false, false, false, null, false, true, reachable(email), null, office.gap()), asPlanned(draft, deadline, contactId));
        }

        /** What was decided about the letters of a basket, by the moments that the plan means. */
        public Map<Instant, PlanChange> decided(long basketId) {
            return changed.of(basketId);
        }

        /** The least time between two letters to one person. */
        public Duration gap() {
            return office.gap();
        }

        /** Why a basket gets no letters, as things stand. */
        Optional<Recipient.Reason> standing(Board.Row row) {
            return withoutLast(row).against(now);
        }

        private Map<Long, List<LocalDate>> extensions() {
            if (extensions == null) {
                extensions = baskets.extensions();
            }
            return extensions;
        }

        boolean reachable(String email) {
            if (refused == null) {
                refused = new HashSet<>(table.refusedAddresses());
            }
            return !refused.contains(email);
        }
    }
}
