package oakbasket.server.round;

import oakbasket.core.round.ItemSpec;

/**
 * A checklist item of a round.
 *
 * @param number its place in the checklist, from 1; what strangers know it by
 */
public record Item(long id, int number, ItemSpec spec) {
}
