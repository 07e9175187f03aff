package oakbasket.server.round;

import java.util.List;
import oakbasket.core.round.ItemSpec;
import org.jspecify.annotations.Nullable;

/**
 * A checklist item of a round.
 *
 * @param number stands for it in what strangers see, from 1; never given to another item of the round
 * @param owedBy the groups that owe it; empty means everybody
 * @param formId its blank form; null when it has none
 */
public record Item(long id, int number, ItemSpec spec, List<String> owedBy, @Nullable Long formId) {
}
