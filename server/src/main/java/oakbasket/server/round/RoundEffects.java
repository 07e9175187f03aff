package oakbasket.server.round;

import java.util.List;
import oakbasket.core.standing.RoundEffect;

/** Says what a change of a gathering round would mean; implemented by the capability that judges baskets. */
public interface RoundEffects {

    /** What would happen to one person's basket. */
    record Affected(String name, RoundEffect effect) {
    }

    /** Compares the round as it is with how it would be; baskets that nothing happens to are left out. */
    List<Affected> compare(Round before, List<Item> itemsBefore, Round after, List<Item> itemsAfter);
}
