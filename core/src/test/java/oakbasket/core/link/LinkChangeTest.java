package oakbasket.core.link;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import oakbasket.core.round.RoundState;
import org.junit.jupiter.api.Test;

/** What is done to a link is seen in its state at once, and each can be taken back. */
class LinkChangeTest {

    private static final Instant NOW = Instant.parse("2026-06-01T12:00:00Z");
    private static final ZoneId LONDON = ZoneId.of("Europe/London");

    @Test
    void pausingAndWithdrawingStopAndAreTakenBack() {
        LinkTerms live = LinkTerms.fresh(NOW);
        LinkTerms paused = on(live, new LinkChange.Pause(true));
        assertThat(state(paused)).isEqualTo(LinkState.PAUSED);
        assertThat(on(on(paused, new LinkChange.Withdraw(true)), new LinkChange.Withdraw(false))).as("it is still paused").isEqualTo(paused);
        assertThat(on(paused, new LinkChange.Pause(false))).isEqualTo(live);
        assertThat(new LinkChange.Pause(true).on(paused, NOW.plusSeconds(9), LONDON)).as("since when it was").isEqualTo(paused);
    }

    @Test
    void anEndedLinkLivesAgainWhenRenewedAndAWithdrawnOneDoesNot() {
        LinkTerms ended = LinkTerms.fresh(NOW).with(new LinkWindow(NOW.minus(Duration.ofDays(9)), null, NOW.minusSeconds(1)));
        assertThat(state(ended)).isEqualTo(LinkState.ENDED);
        LinkTerms renewed = on(ended, new LinkChange.Renew(14));
        assertThat(state(renewed)).isEqualTo(LinkState.LIVE);
        assertThat(renewed.window().end()).isEqualTo(Instant.parse("2026-06-15T12:00:00Z"));
        assertThat(on(ended, new LinkChange.Renew(null)).window()).isEqualTo(LinkWindow.whileGathering(NOW));
        LinkTerms withdrawn = on(ended, new LinkChange.Withdraw(true));
        assertThat(on(withdrawn, new LinkChange.Renew(14))).isEqualTo(withdrawn);
    }

    @Test
    void otherTermsLeaveWhatWasStopped() {
        LinkLimits limits = new LinkLimits(3, 9, 1L, 2L);
        LinkTerms changed = on(on(LinkTerms.fresh(NOW), new LinkChange.Pause(true)), new LinkChange.Terms(new LinkWindow(NOW, NOW.plusSeconds(60), null), limits));
        assertThat(state(changed)).isEqualTo(LinkState.PAUSED);
        assertThat(state(on(changed, new LinkChange.Pause(false)))).isEqualTo(LinkState.WAITING);
        assertThat(changed.limits()).isEqualTo(limits);
    }

    private static LinkTerms on(LinkTerms terms, LinkChange change) {
        return change.on(terms, NOW, LONDON);
    }

    private static LinkState state(LinkTerms terms) {
        return LinkState.of(terms, RoundState.GATHERING, NOW);
    }
}
