package oakbasket.core.recurrence;

import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.Optional;
import oakbasket.core.deadline.WorkingDays;
import org.jspecify.annotations.Nullable;

/**
 * A round that comes again. Each occurrence of the rule is the deadline of one round, which opens some days before.
 *
 * @param start no round is due before this date
 * @param opensDaysBefore how many calendar days before its deadline a round opens, from 1 to {@value #MOST_DAYS_BEFORE}
 * @param shift what to do when a deadline falls on a closed day
 */
public record Series(Recurrence recurrence, LocalDate start, int opensDaysBefore, WorkingDays.Shift shift) {

    /** The longest time a round of a series is open before its deadline, in days. */
    public static final int MOST_DAYS_BEFORE = 180;

    /**
     * One round of a series.
     *
     * @param occurrence the date the rule gives, which tells the rounds of a series apart
     * @param opens the day it opens
     * @param deadline the occurrence, moved off closed days
     */
    public record Dates(LocalDate occurrence, LocalDate opens, LocalDate deadline) {
    }

    public Series {
        if (opensDaysBefore < 1 || opensDaysBefore > MOST_DAYS_BEFORE) {
            throw new IllegalArgumentException("A round opens 1 to " + MOST_DAYS_BEFORE + " days before its deadline");
        }
    }

    /** The round after the one of {@code last}, or the first where that is null; empty when the rule has ended. */
    public Optional<Dates> next(@Nullable LocalDate last, WorkingDays days) {
        return recurrence.dates(start, last, 1).stream().findFirst().map(date -> dates(date, days));
    }

    /**
     * The newest round whose day to open has come, so that after a standstill one round is made and not a pile of them.
     *
     * @param last the occurrence made last; null when none was
     * @param today the date in the zone of the series
     */
    public Optional<Dates> due(@Nullable LocalDate last, LocalDate today, WorkingDays days) {
        Dates newest = null;
        for (LocalDate occurrence : recurrence.dates(start, last, 1_000)) {
            Dates dates = dates(occurrence, days);
            if (dates.opens().isAfter(today)) {
                break;
            }
            newest = dates;
        }
        return Optional.ofNullable(newest).filter(dates -> !dates.deadline().isBefore(today));
    }

    /** A round's title: that of the series and the month, or the day where a month may have several. */
    public static String title(String title, LocalDate occurrence, Recurrence recurrence, Locale language) {
        boolean monthly = recurrence.rule().contains("FREQ=MONTHLY") || recurrence.rule().contains("FREQ=YEARLY");
        return title + ", " + DateTimeFormatter.ofPattern(monthly ? "MMMM yyyy" : "d MMMM yyyy", language).format(occurrence);
    }

    private Dates dates(LocalDate occurrence, WorkingDays days) {
        LocalDate deadline = days.shifted(occurrence, shift);
        return new Dates(occurrence, deadline.minusDays(opensDaysBefore), deadline);
    }
}
