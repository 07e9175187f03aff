package oakbasket.server.rulebreakers.one;

import oakbasket.server.rulebreakers.other.Circle;
import org.springframework.context.annotation.Lazy;

/** Asks for a lazy friend in a package that depends on this one. */
public class CircleService {

    private final Circle circle;

    CircleService(@Lazy Circle circle) {
        this.circle = circle;
    }

    Circle circle() {
        return circle;
    }
}
