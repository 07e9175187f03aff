package oakbasket.core.filing;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What the rules decide of one file, and why.
 *
 * @param placedBy the rule that places it; null when none does, and it goes where its round says
 * @param because the conditions of that rule that hold
 * @param target where it goes
 * @param tray whether it waits in the tray
 * @param copies where copies go besides, in order
 * @param marks the words it is marked with, in order
 * @param tells who is told, in order
 * @param also the rules that add to it
 */
public record FilingDecision(@Nullable RuleRef placedBy, List<Condition> because, Target target, boolean tray, List<Copied> copies, List<String> marks, List<String> tells, List<RuleRef> also) {

    /** The same for a file that somebody has looked at in the tray already: it goes where its round says. */
    public FilingDecision pastTray() {
        return tray ? new FilingDecision(null, List.of(), target, false, copies, marks, tells, also) : this;
    }

    /**
     * A copy.
     *
     * @param by the rule that asks for it
     * @param because the conditions of that rule that hold
     */
    public record Copied(Target target, RuleRef by, List<Condition> because) {
    }

    /**
     * A place before numbers are given to names that clash.
     *
     * @param root the folder root, from 1
     * @param folder segments parted by slashes
     */
    public record Target(long root, String folder, String name) {

        /** The folder with its root. */
        public String folderPlace() {
            return Place.of(root, folder);
        }

        /** The whole place. */
        public String place() {
            return Place.of(root, folder + "/" + name);
        }
    }
}
