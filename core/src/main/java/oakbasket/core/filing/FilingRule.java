package oakbasket.core.filing;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * A rule as typed: when its conditions hold for a file, its effects come about. Of the rules that place, the first one whose conditions hold does; one that also
 * acts places nothing and adds its effects whenever its conditions hold.
 *
 * @param name what people call it; may be empty
 * @param active whether it is heeded
 * @param join whether all conditions must hold or any one; without conditions it holds for every file
 * @param also whether it adds to what places
 * @param place where it puts the file; null when it does not
 * @param tray whether the file waits in the tray for somebody to decide
 * @param copies where copies go besides
 * @param mark a word the file is marked with; empty means none
 * @param tell the address that is told; empty means nobody
 */
@RecordBuilder
public record FilingRule(String name, boolean active, Join join, List<Condition> conditions, boolean also, @Nullable Placement place, boolean tray, List<Placement> copies, String mark, String tell) {

    /** How conditions are joined. */
    public enum Join {
        ALL,
        ANY
    }

    /** The longest name and mark in characters. */
    public static final int LONGEST_NAME = 100;
    public static final int LONGEST_MARK = 40;
    /** The most conditions of a rule, and copies. */
    public static final int MOST_CONDITIONS = 20;
    public static final int MOST_COPIES = 5;

    public FilingRule {
        conditions = List.copyOf(conditions);
        copies = List.copyOf(copies);
    }

    /** Whether it says where a file goes. */
    boolean decides() {
        return tray || place != null;
    }
}
