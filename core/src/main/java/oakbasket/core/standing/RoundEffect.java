package oakbasket.core.standing;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import oakbasket.core.deadline.Timeliness;

/**
 * What a change of a gathering round would mean for one basket; made before it is applied, so that nobody is surprised.
 *
 * @param basketId whose basket
 * @param kinds what would be different, at least one
 * @param deadlineBefore the effective deadline as it is
 * @param deadlineAfter as it would be
 */
public record RoundEffect(long basketId, List<Kind> kinds, Instant deadlineBefore, Instant deadlineAfter) {

    /** Ways a basket can be affected. */
    public enum Kind { BECOMES_COMPLETE, BECOMES_INCOMPLETE, DEADLINE_EARLIER, DEADLINE_LATER, BECOMES_OVERDUE, NO_LONGER_OVERDUE, BECOMES_LATE, NO_LONGER_LATE }

    /** One basket before or after. */
    public record Side(long basketId, BasketStanding standing, Instant deadline) {
    }

    /** Compares the baskets of a round pairwise; those that nothing happens to are left out. Both lists have the same baskets in the same order. */
    public static List<RoundEffect> of(List<Side> before, List<Side> after) {
        List<RoundEffect> effects = new ArrayList<>();
        for (int i = 0; i < before.size(); i++) {
            List<Kind> kinds = kinds(before.get(i), after.get(i));
            if (!kinds.isEmpty()) {
                effects.add(new RoundEffect(before.get(i).basketId(), kinds, before.get(i).deadline(), after.get(i).deadline()));
            }
        }
        return effects;
    }

    private static List<Kind> kinds(Side before, Side after) {
        List<Kind> kinds = new ArrayList<>();
        boolean was = before.standing().progress().finished();
        boolean becomes = after.standing().progress().finished();
        add(kinds, !was && becomes, Kind.BECOMES_COMPLETE);
        add(kinds, was && !becomes, Kind.BECOMES_INCOMPLETE);
        add(kinds, after.deadline().isBefore(before.deadline()), Kind.DEADLINE_EARLIER);
        add(kinds, after.deadline().isAfter(before.deadline()), Kind.DEADLINE_LATER);
        Timeliness.State then = before.standing().timeliness().state();
        Timeliness.State now = after.standing().timeliness().state();
        add(kinds, then != Timeliness.State.OVERDUE && now == Timeliness.State.OVERDUE, Kind.BECOMES_OVERDUE);
        add(kinds, then == Timeliness.State.OVERDUE && now != Timeliness.State.OVERDUE, Kind.NO_LONGER_OVERDUE);
        add(kinds, then != Timeliness.State.LATE && now == Timeliness.State.LATE, Kind.BECOMES_LATE);
        add(kinds, then == Timeliness.State.LATE && now != Timeliness.State.LATE, Kind.NO_LONGER_LATE);
        return kinds;
    }

    private static void add(List<Kind> kinds, boolean applies, Kind kind) {
        if (applies) {
            kinds.add(kind);
        }
    }
}
