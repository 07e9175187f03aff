package oakbasket.server.demo;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import oakbasket.core.link.LinkChange;
import oakbasket.core.link.LinkLimits;
import oakbasket.core.link.LinkWindow;
import oakbasket.core.link.ReadableName;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.link.Link;
import oakbasket.server.link.LinkActs;
import oakbasket.server.link.Links;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.Known;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;

/** Gives links of the demo terms of their own, so that every state is there to be seen. */
@Component
@ConditionalOnProperty("oakbasket.demo")
class DemoLinks {

    private static final long MEBIBYTE = 1L << 20;

    private final LinkActs acts;
    private final Links links;
    private final Baskets baskets;
    private final Rounds rounds;
    private final Clock clock;

    DemoLinks(LinkActs acts, Links links, Baskets baskets, Rounds rounds, Clock clock) {
        this.acts = acts;
        this.links = links;
        this.baskets = baskets;
        this.rounds = rounds;
        this.clock = clock;
    }

    /** An open link with limits that ends soon; one personal link that waits, one paused, one withdrawn, two with a week more. */
    void make(long account) {
        Instant now = clock.instant();
        Map<String, Long> ids = rounds.all().stream().collect(Collectors.toMap(Rounds.Head::title, Rounds.Head::id));
        long portfolios = Known.in(ids, "Placement portfolios");
        Link open = links.openOf(portfolios).orElseThrow();
        terms(open, new LinkWindow(now, null, rounds.opened(portfolios).deadline().instant().minus(Duration.ofDays(9))), new LinkLimits(60, 200, 20 * MEBIBYTE, 1024 * MEBIBYTE),
                ReadableName.suggestion("Placement portfolios"), account);
        List<Link> landowners = baskets.ofRound(Known.in(ids, "Landowner consent packs, winter planting")).stream().map(Basket::id).map(id -> links.ofBasket(id).orElseThrow()).toList();
        terms(landowners.get(22), new LinkWindow(now, now.plus(Duration.ofDays(3)), null), LinkLimits.NONE, "winter-planting", account);
        acts.apply(List.of(landowners.get(13).id()), new LinkChange.Pause(true), account);
        acts.apply(List.of(landowners.get(10).id()), new LinkChange.Withdraw(true), account);
        acts.apply(List.of(landowners.get(14).id(), landowners.get(18).id()), new LinkChange.Renew(7), account);
    }

    private void terms(Link link, LinkWindow window, LinkLimits limits, String name, long account) {
        acts.setTerms(link.id(), link.version(), new LinkChange.Terms(window, limits), name, account);
    }
}
