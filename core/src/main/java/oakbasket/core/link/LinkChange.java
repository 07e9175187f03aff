package oakbasket.core.link;

import java.time.Instant;
import java.time.ZoneId;
import org.jspecify.annotations.Nullable;

/** One thing a coordinator does to the terms of a link, or of many at once. */
public sealed interface LinkChange {

    /** Stops a link for a while, or lets it go on. */
    record Pause(boolean on) implements LinkChange {
    }

    /** Stops a link for good, or gives it back. */
    record Withdraw(boolean on) implements LinkChange {
    }

    /** The same address with a new window from now on; a withdrawn link keeps its own. Null days mean while the round gathers. */
    record Renew(@Nullable Integer days) implements LinkChange {
    }

    /** Other terms altogether. */
    record Terms(LinkWindow window, LinkLimits limits) implements LinkChange {
    }

    /** The terms after it. */
    default LinkTerms on(LinkTerms terms, Instant now, ZoneId zone) {
        if (this instanceof Pause pause) {
            return terms.paused(pause.on() ? now : null);
        }
        if (this instanceof Withdraw withdraw) {
            return terms.withdrawn(withdraw.on() ? now : null);
        }
        if (this instanceof Renew renew) {
            Integer days = renew.days();
            return terms.withdrawnAt() != null ? terms : terms.with(days == null ? LinkWindow.whileGathering(now) : LinkWindow.ofDays(now, null, days, zone));
        }
        Terms other = (Terms) this;
        return terms.with(other.window()).with(other.limits());
    }
}
