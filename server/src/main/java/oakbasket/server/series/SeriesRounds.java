package oakbasket.server.series;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.time.Clock;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import oakbasket.core.compose.RoundSheet;
import oakbasket.core.deadline.WorkingDays;
import oakbasket.core.fault.Fault;
import oakbasket.core.fault.FaultyValue;
import oakbasket.core.recurrence.Recurrence;
import oakbasket.core.recurrence.Series;
import oakbasket.server.Settings;
import oakbasket.server.calendar.Calendars;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.opening.Opening;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Drafts;
import oakbasket.server.sharing.Sharing;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Transactions;
import oakbasket.server.template.RoundCopies;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;

/** Rounds that come again. When the day to open comes, the next round is made of the series' sheet, with its own dates and with its groups as they are then. */
@Service
public class SeriesRounds {

    private static final Logger LOG = LoggerFactory.getLogger(SeriesRounds.class);
    private static final int DATES_SHOWN = 6;
    private static final int LONGEST_TROUBLE = 1_000;

    /** What a coordinator says of a series. */
    public record SeriesTerms(@Nullable String rule, @Nullable LocalDate startsOn, @Nullable Integer opensDaysBefore, WorkingDays.@Nullable Shift shift, @Nullable Boolean opensItself) {
    }

    /** A series as the desk shows it. */
    @RecordBuilder
    @RecordBuilder.Options(builderMode = RecordBuilder.BuilderMode.STANDARD_AND_STAGED)
    public record ListedSeries(long id, int version, String title, String rule, String words, LocalDate startsOn, int opensDaysBefore, WorkingDays.Shift shift, boolean opensItself,
            boolean paused, String trouble, List<Series.Dates> coming, List<String> groups, int people) {
    }

    /** A rule in words, and what comes of it. */
    record SeriesPreview(String words, List<Series.Dates> coming) {
    }

    private final SeriesTable table;
    private final RoundCopies copies;
    private final Drafts drafts;
    private final Opening opening;
    private final Calendars calendars;
    private final Transactions transactions;
    private final LiveHub live;
    private final JsonMapper json;
    private final Words words;
    private final RecurrenceWords recurrenceWords;
    private final Settings settings;
    private final Sharing sharing;
    private final Clock clock;

    SeriesRounds(SeriesTable table, RoundCopies copies, Drafts drafts, Opening opening, Calendars calendars, Transactions transactions, LiveHub live, JsonMapper json, Words words, Settings settings,
            Sharing sharing, Clock clock) {
        this.sharing = sharing;
        this.table = table;
        this.copies = copies;
        this.drafts = drafts;
        this.opening = opening;
        this.calendars = calendars;
        this.transactions = transactions;
        this.live = live;
        this.json = json;
        this.words = words;
        this.recurrenceWords = new RecurrenceWords(words);
        this.settings = settings;
        this.clock = clock;
    }

    List<ListedSeries> all() {
        return table.all().stream().map(this::listed).toList();
    }

    /** Says a rule in words and shows its next rounds; stores nothing. */
    SeriesPreview preview(SeriesTerms terms, @Nullable Long calendarId) {
        Series series = series(terms);
        return new SeriesPreview(recurrenceWords.of(series.recurrence()), coming(series, null, calendars.days(calendarId)));
    }

    /** Makes a series of a round's sheet. */
    public ListedSeries begin(long roundId, SeriesTerms terms, long account) {
        Series series = series(terms);
        RoundSheet sheet = copies.sheetForAnother(roundId);
        RoundSheet dated = json.readValue(json.writeValueAsString(sheet), RoundSheet.class);
        long id = transactions.durably(() -> {
            long made = table.insert(json.writeValueAsString(dated), series, itself(terms), account);
            sharing.inheritSeries(roundId, made, account);
            return made;
        });
        return listed(byId(id));
    }

    ListedSeries change(long id, int version, SeriesTerms terms) {
        byId(id);
        Series series = series(terms);
        if (transactions.durably(() -> table.update(id, version, series, itself(terms))) != 1) {
            throw Problem.conflict("changed-elsewhere");
        }
        return listed(byId(id));
    }

    ListedSeries pause(long id, boolean paused) {
        byId(id);
        transactions.durably(() -> table.pause(id, paused));
        return listed(byId(id));
    }

    /** Ends a series; the rounds it made stay. */
    void end(long id) {
        byId(id);
        if (transactions.durably(() -> table.delete(id)) != 1) {
            throw Problem.notFound("no-series");
        }
    }

    /** Makes the rounds whose day has come. */
    @Scheduled(fixedDelayString = "${oakbasket.series-every:PT1M}")
    void makeWhatIsDue() {
        Acting.officeDoes(this::makeWhatIsDueNow);
    }

    private void makeWhatIsDueNow() {
        for (SeriesTable.Kept series : table.all()) {
            try {
                if (!series.paused()) {
                    make(series);
                }
            } catch (RuntimeException trouble) {
                LOG.error("The round of series {} could not be made", series.id(), trouble);
            }
        }
    }

    private void make(SeriesTable.Kept kept) {
        RoundSheet sheet = json.readValue(kept.sheet(), RoundSheet.class);
        ZoneId zone = ZoneId.getAvailableZoneIds().contains(sheet.zone()) ? ZoneId.of(sheet.zone()) : settings.zone();
        Optional<Series.Dates> due = kept.series().due(kept.lastOccurrence(), LocalDate.ofInstant(clock.instant(), zone), calendars.days(sheet.calendarId()));
        if (due.isEmpty()) {
            return;
        }
        Series.Dates dates = due.get();
        RoundSheet dated = sheet.forAnother(Series.title(sheet.title(), dates.occurrence(), kept.series().recurrence(), words.language()), dates.deadline().toString());
        Long round = transactions.durably(() -> table.made(kept.id(), dates.occurrence()) == 1 ? (Long) begun(kept, dated) : null);
        if (round == null) {
            return;
        }
        String trouble = kept.opensItself() ? open(round) : "";
        transactions.durably(() -> {
            table.trouble(kept.id(), trouble);
            return true;
        });
        live.publish(new LiveEvent("round", round, null));
    }

    private long begun(SeriesTable.Kept kept, RoundSheet dated) {
        long made = drafts.beginOfSeries(dated, kept.account(), kept.id());
        sharing.inheritFromSeries(kept.id(), made);
        return made;
    }

    /** Opens a round that was just made; what stands against it is told, and it stays a draft. */
    private String open(long id) {
        Drafts.Draft draft = drafts.draft(id);
        if (draft.errors().isEmpty()) {
            opening.open(id, draft.head().version());
            return "";
        }
        String trouble = String.join(" ", draft.errors().stream().map(words::of).toList());
        return trouble.length() <= LONGEST_TROUBLE ? trouble : trouble.substring(0, LONGEST_TROUBLE);
    }

    private SeriesTable.Kept byId(long id) {
        return table.byId(id).orElseThrow(() -> Problem.notFound("no-series"));
    }

    private ListedSeries listed(SeriesTable.Kept kept) {
        RoundSheet sheet = json.readValue(kept.sheet(), RoundSheet.class);
        Series series = kept.series();
        return SeriesRoundsListedSeriesBuilder.stagedBuilder().id(kept.id()).version(kept.version()).title(sheet.title())
                .rule(series.recurrence().rule()).words(recurrenceWords.of(series.recurrence())).startsOn(series.start())
                .opensDaysBefore(series.opensDaysBefore()).shift(series.shift()).opensItself(kept.opensItself()).paused(kept.paused())
                .trouble(kept.trouble()).coming(coming(series, kept.lastOccurrence(), calendars.days(sheet.calendarId()))).groups(sheet.groups())
                .people(sheet.people().size()).build();
    }

    private List<Series.Dates> coming(Series series, @Nullable LocalDate after, WorkingDays days) {
        List<Series.Dates> coming = new ArrayList<>();
        LocalDate yesterday = LocalDate.ofInstant(clock.instant(), settings.zone()).minusDays(1);
        LocalDate last = after != null && after.isAfter(yesterday) ? after : yesterday;
        for (Optional<Series.Dates> next = series.next(last, days); next.isPresent() && coming.size() < DATES_SHOWN; next = series.next(last, days)) {
            coming.add(next.get());
            last = next.get().occurrence();
        }
        return coming;
    }

    private Series series(SeriesTerms terms) {
        List<Fault> errors = new ArrayList<>();
        Recurrence recurrence = null;
        try {
            recurrence = new Recurrence(terms.rule() == null ? "" : terms.rule());
        } catch (FaultyValue wrong) {
            errors.add(wrong.at("rule"));
        }
        LocalDate start = terms.startsOn();
        LocalDate today = LocalDate.ofInstant(clock.instant(), settings.zone());
        if (start == null || start.isBefore(today.minusYears(1)) || ChronoUnit.YEARS.between(today, start) > 10) {
            errors.add(Fault.of("startsOn", start == null ? "series-start-missing" : "series-start-far"));
        }
        int days = terms.opensDaysBefore() == null ? 14 : terms.opensDaysBefore();
        if (days < 1 || days > Series.MOST_DAYS_BEFORE) {
            errors.add(Fault.of("opensDaysBefore", "series-days-before", Series.MOST_DAYS_BEFORE));
        }
        if (recurrence != null && start != null && errors.isEmpty() && recurrence.dates(start, today.minusDays(1), 1).isEmpty()) {
            errors.add(Fault.of("rule", "rule-over"));
        }
        if (!errors.isEmpty() || recurrence == null || start == null) {
            throw Problem.fields(errors);
        }
        return new Series(recurrence, start, days, terms.shift() == null ? WorkingDays.Shift.EARLIER : terms.shift());
    }

    private static boolean itself(SeriesTerms terms) {
        return terms.opensItself() != null && terms.opensItself();
    }
}
