package oakbasket.core.compose;

import java.util.List;
import oakbasket.core.round.ItemSpec;
import org.jspecify.annotations.Nullable;

/**
 * An item of a sheet without faults.
 *
 * @param id the item it changes; null for a new one
 */
public record PlannedItem(@Nullable Long id, ItemSpec spec, List<String> owedBy, @Nullable Long formId) {
}
