package oakbasket.server.rulebreakers.other;

import oakbasket.server.rulebreakers.one.CircleService;
import org.jspecify.annotations.Nullable;

/** Closes the circle. */
public class Circle {
    @Nullable CircleService back;
}
