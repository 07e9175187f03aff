package oakbasket.server.post;

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
import oakbasket.core.letter.LetterKind;
import oakbasket.core.reminder.PlannedLetter;
import oakbasket.core.reminder.Recipient;
import oakbasket.core.round.RoundState;
import oakbasket.server.basket.Baskets;
import oakbasket.server.board.Board;
import oakbasket.server.calendar.Calendars;
import oakbasket.server.contact.Contacts;
import oakbasket.server.round.Round;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** What the plans of rounds mean for the people in them. */
@Component
class PlannedLetters {

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

    PlannedLetters(Calendars calendars, Contacts contacts, Baskets baskets, LetterTable table) {
        this.calendars = calendars;
        this.contacts = contacts;
        this.baskets = baskets;
        this.table = table;
    }

    /** Reads what all people have in common, once for a look at many. */
    Look look(Instant now) {
        return new Look(now, contacts.zones());
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
                look.letters(judged.round(), row).stream().filter(letter -> letter.at().isAfter(judged.now()) && letter.at().isBefore(until))
                        .forEach(letter -> counts.merge(letter, 1, Integer::sum));
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
        Optional<Recipient.Reason> against = Letters.recipient(gathering, row, look.reachable(row), null).against(now);
        if (against.isPresent()) {
            return new Next(null, null, against.get().name());
        }
        return look.letters(round, row).stream().filter(letter -> letter.at().isAfter(now)).findFirst().map(letter -> new Next(letter.at(), letter.kind(), null))
                .orElseGet(() -> new Next(null, null, null));
    }

    /** One look at the plans. */
    final class Look {
        private record When(long round, LocalDate deadline, ZoneId zone) {
        }

        private final Instant now;
        private final Map<Long, String> zones;
        private final Map<When, List<PlannedLetter>> known = new HashMap<>();
        /** Read when first asked for: most looks end before. */
        private @Nullable Map<Long, Instant> last;
        private @Nullable Set<String> refused;
        private @Nullable Map<Long, List<LocalDate>> extensions;

        private Look(Instant now, Map<Long, String> zones) {
            this.now = now;
            this.zones = zones;
        }

        /** The person's zone; the round's where it is not known. */
        ZoneId zone(Round round, Board.Row row) {
            String zone = zones.get(row.contactId());
            return zone == null ? round.zone() : ZoneId.of(zone);
        }

        /** All letters that the plan of a gathering round means for one basket. */
        List<PlannedLetter> letters(Round round, Board.Row row) {
            return letters(round, LocalDate.ofInstant(row.deadline(), round.zone()), zone(round, row));
        }

        private List<PlannedLetter> letters(Round round, LocalDate deadline, ZoneId zone) {
            When when = new When(round.id(), deadline, zone);
            return known.computeIfAbsent(when, one -> round.letters().reminders().letters(one.deadline(), one.zone(), calendars.days(round.calendarId())));
        }

        /** Whether the plan of a round means a letter for anybody who could be in it within a time; nobody's basket is looked at. */
        boolean anything(Round round, Instant after, Instant until) {
            Set<ZoneId> everywhere = new HashSet<>(Set.of(round.zone()));
            zones.values().forEach(zone -> everywhere.add(ZoneId.of(zone)));
            List<LocalDate> deadlines = new ArrayList<>(extensions().getOrDefault(round.id(), List.of()));
            deadlines.add(LocalDate.ofInstant(round.deadline().instant(), round.zone()));
            return everywhere.stream().anyMatch(zone -> deadlines.stream().flatMap(deadline -> letters(round, deadline, zone).stream())
                    .anyMatch(letter -> letter.at().isAfter(after) && !letter.at().isAfter(until)));
        }

        /** Now, or the next moment at which this person may be written to. */
        Instant allowed(Round round, Board.Row row) {
            return round.letters().reminders().allowed(now, zone(round, row), calendars.days(round.calendarId()));
        }

        /** What decides about one basket of a gathering round. */
        Recipient recipient(Board.Row row) {
            if (last == null) {
                last = table.lastTo(now.minus(Recipient.MINIMUM_GAP));
            }
            return Letters.recipient(true, row, reachable(row), last.get(row.contactId()));
        }

        /** Why a basket gets no letters, as things stand. */
        Optional<Recipient.Reason> standing(Board.Row row) {
            return Letters.recipient(true, row, reachable(row), null).against(now);
        }

        private Map<Long, List<LocalDate>> extensions() {
            if (extensions == null) {
                extensions = baskets.extensions();
            }
            return extensions;
        }

        boolean reachable(Board.Row row) {
            if (refused == null) {
                refused = new HashSet<>(table.refusedAddresses());
            }
            return !refused.contains(row.email());
        }
    }
}
