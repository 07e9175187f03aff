package oakbasket.server.basket;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import oakbasket.core.allowance.Allowance;
import oakbasket.core.standing.BasketStanding;
import org.jspecify.annotations.Nullable;

/**
 * One contact's share of one round.
 *
 * @param version counts what coordinators did to it; a change names the version it was made from
 * @param walkIn whether this person was not asked but came through the open link
 * @param askedAt when the invitation went or the link was handed over; null when neither
 * @param openedAt when the sender first saw the page; null when never
 * @param groups the groups the person was in when asked
 */
public record Basket(long id, long roundId, long contactId, int version, boolean walkIn, @Nullable Instant askedAt, @Nullable Instant openedAt,
        Allowance allowance, List<String> groups) {

    /** What happened to it so far, as its standing needs it. */
    public BasketStanding.Story story() {
        return new BasketStanding.Story(askedAt, openedAt, allowance.waivedAt());
    }

    /** The last day of its own deadline; null when it has none. */
    public @Nullable LocalDate extension() {
        return allowance.extension();
    }

    /** Whether it was taken out of the round. */
    public boolean removed() {
        return allowance.removedAt() != null;
    }

    /** Whether this person owes an item that only some groups owe; an item without groups is owed by all. */
    public boolean owes(Collection<String> owedBy) {
        return owedBy.isEmpty() || owedBy.stream().anyMatch(groups::contains);
    }
}
