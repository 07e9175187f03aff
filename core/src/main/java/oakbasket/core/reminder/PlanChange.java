package oakbasket.core.reminder;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What a coordinator decided about one letter of a plan before it goes.
 *
 * @param to where it is moved; null unless it is
 */
public record PlanChange(Act act, @Nullable Instant to) {

    /** What was decided. */
    public enum Act {
        /** It goes at another time. */
        MOVE,
        /** It does not go. */
        SKIP,
        /** It waits until it is let go, also beyond its time. */
        HOLD
    }

    /**
     * The letters with what was decided about them, the earliest first.
     *
     * @param changes by the step that the plan means
     */
    public static List<PlannedLetter> applied(List<PlannedLetter> letters, Map<Instant, PlanChange> changes) {
        if (changes.isEmpty()) {
            return letters;
        }
        List<PlannedLetter> changed = new ArrayList<>();
        for (PlannedLetter letter : letters) {
            PlanChange change = changes.get(letter.step());
            Instant to = change == null ? null : change.to();
            changed.add(change == null ? letter : switch (change.act()) {
                case MOVE -> new PlannedLetter(letter.kind(), to == null ? letter.at() : to, letter.step(), null);
                case SKIP -> new PlannedLetter(letter.kind(), letter.at(), letter.step(), Recipient.Reason.SKIPPED);
                case HOLD -> new PlannedLetter(letter.kind(), letter.at(), letter.step(), Recipient.Reason.HELD);
            });
        }
        changed.sort(Comparator.comparing(PlannedLetter::at));
        return changed;
    }
}
