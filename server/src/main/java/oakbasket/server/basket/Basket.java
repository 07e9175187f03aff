package oakbasket.server.basket;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import oakbasket.core.standing.BasketStanding;
import org.jspecify.annotations.Nullable;

/**
 * One contact's share of one round.
 *
 * @param walkIn whether this person was not asked but came through the open link
 * @param askedAt when the invitation went or the link was handed over; null when neither
 * @param openedAt when the sender first saw the page; null when never
 * @param waivedAt when everything was excused; null when not
 * @param extensionDate this basket's own deadline; null when it has none
 * @param extensionTime null means the end of that date
 */
public record Basket(long id, long roundId, long contactId, boolean walkIn, @Nullable Instant askedAt, @Nullable Instant openedAt,
        @Nullable Instant waivedAt, @Nullable LocalDate extensionDate, @Nullable LocalTime extensionTime, String extensionReason) {

    BasketStanding.Story story() {
        return new BasketStanding.Story(askedAt, openedAt, waivedAt);
    }
}
