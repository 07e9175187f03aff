package oakbasket.server.clock;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Objects;
import java.util.concurrent.atomic.AtomicReference;

/** A clock that can be moved forward, so that a plan is seen at work; only the demo has one. */
public final class MovableClock extends Clock {

    private final Clock base;
    private final AtomicReference<Duration> ahead;

    MovableClock(Clock base) {
        this(base, new AtomicReference<>(Duration.ZERO));
    }

    private MovableClock(Clock base, AtomicReference<Duration> ahead) {
        this.base = base;
        this.ahead = ahead;
    }

    /** Moves it forward. */
    public void move(Duration by) {
        ahead.updateAndGet(by::plus);
    }

    /** How far it is ahead of the clock it began with. */
    public Duration ahead() {
        return Objects.requireNonNull(ahead.get());
    }

    @Override
    public ZoneId getZone() {
        return base.getZone();
    }

    @Override
    public Clock withZone(ZoneId zone) {
        return new MovableClock(base.withZone(zone), ahead);
    }

    @Override
    public Instant instant() {
        return base.instant().plus(ahead());
    }
}
