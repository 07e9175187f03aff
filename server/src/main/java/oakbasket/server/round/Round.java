package oakbasket.server.round;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import oakbasket.core.compose.RoundPlan;
import oakbasket.core.deadline.DeadlineTerms;
import oakbasket.core.deadline.LocalDeadline;
import oakbasket.core.reminder.LetterPlan;
import oakbasket.core.round.RoundState;
import org.jspecify.annotations.Nullable;

/**
 * A round that has been opened at some time.
 *
 * @param version counts changes; a change names the version it was made from
 * @param askedBy the account that asks
 * @param closesAt when links shut by themselves; null when they do not
 * @param keepUntil the last day papers are kept; null when nobody said
 * @param calendarId whose working days count; null means the default
 * @param takesActive whether files that run or open with script are taken
 * @param letters which letters it sends by itself
 */
@RecordBuilder
@RecordBuilder.Options(builderMode = RecordBuilder.BuilderMode.STANDARD_AND_STAGED)
public record Round(long id, RoundState state, int version, String title, String note, LocalDeadline deadline, Duration warning, Duration grace,
        String folderPattern, String namePattern, long askedBy, Instant openedAt, @Nullable Instant closesAt, @Nullable Instant closedAt,
        @Nullable LocalDate keepUntil, @Nullable Long calendarId, boolean takesActive, LetterPlan letters) {

    /**
     * The deadline for a basket of this round.
     *
     * @param extension the last day of the basket's own deadline; null when it has none
     */
    public DeadlineTerms terms(@Nullable LocalDate extension) {
        Instant until = extension == null ? null : new LocalDeadline(extension, null, zone()).instant();
        return new DeadlineTerms(deadline.instant(), until, warning, grace);
    }

    /** This round as it would be with another plan. */
    public Round with(RoundPlan plan) {
        return planned(RoundBuilder.builder(this), plan);
    }

    static Round planned(RoundBuilder known, RoundPlan plan) {
        return known.title(plan.title()).note(plan.note()).deadline(plan.deadline()).warning(plan.warning()).grace(plan.grace())
                .folderPattern(plan.folderPattern()).namePattern(plan.namePattern()).closesAt(plan.closesAt()).keepUntil(plan.keepUntil()).calendarId(plan.calendarId())
                .takesActive(plan.takesActive()).letters(plan.letters()).build();
    }

    /** The round's zone. */
    public ZoneId zone() {
        return deadline.zone();
    }
}
