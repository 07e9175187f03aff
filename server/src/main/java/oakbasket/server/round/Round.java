package oakbasket.server.round;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import oakbasket.core.deadline.DeadlineTerms;
import oakbasket.core.deadline.LocalDeadline;
import oakbasket.core.round.RoundState;
import org.jspecify.annotations.Nullable;

/**
 * A round that has been opened at some time.
 *
 * @param version counts changes; a change names the version it was made from
 * @param askedBy the account that asks
 * @param closesAt when links shut by themselves; null when they do not
 */
public record Round(long id, RoundState state, int version, String title, String note, LocalDeadline deadline, Duration warning, Duration grace,
        String folderPattern, String namePattern, long askedBy, Instant openedAt, @Nullable Instant closesAt, @Nullable Instant closedAt) {

    /**
     * The deadline for a basket of this round.
     *
     * @param extensionDate the basket's own date; null when it has none
     * @param extensionTime its time; null means the end of that date
     */
    public DeadlineTerms terms(@Nullable LocalDate extensionDate, @Nullable LocalTime extensionTime) {
        Instant extension = extensionDate == null ? null : new LocalDeadline(extensionDate, extensionTime, zone()).instant();
        return new DeadlineTerms(deadline.instant(), extension, warning, grace);
    }

    /** The round's zone. */
    public ZoneId zone() {
        return deadline.zone();
    }
}
