package oakbasket.core.deadline;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Optional;
import oakbasket.core.fault.Fault;
import org.jspecify.annotations.Nullable;

/**
 * The three clocks of a round, which never stand in for one another: the deadline judges who is in time, the closing shuts the links, the retention date says how long
 * papers are kept.
 *
 * @param closing when links shut by themselves; null when they stay open while the round gathers
 * @param keepUntil the last day papers are kept; null when nobody said
 */
public record ThreeClocks(Instant deadline, @Nullable Instant closing, @Nullable LocalDate keepUntil) {

    /** The first thing that does not fit: links never shut before the deadline, and papers are kept past the deadline and the closing. */
    public Optional<Fault> fault(ZoneId zone) {
        if (closing != null && closing.isBefore(deadline)) {
            return Optional.of(Fault.of("closingDate", "closing-before-deadline"));
        }
        LocalDate end = LocalDate.ofInstant(closing == null ? deadline : closing, zone);
        return keepUntil != null && !keepUntil.isAfter(end) ? Optional.of(Fault.of("keepUntil", "kept-too-briefly")) : Optional.empty();
    }
}
