package oakbasket.server.post;

import java.time.Duration;
import java.time.Instant;

/** Counts letters by the minute, so that no mail server is given more than it likes. It is the machine's minute that counts, whatever time the application runs at. */
final class Pace {

    private static final Duration MINUTE = Duration.ofMinutes(1);

    private Instant began = Instant.MIN;
    private int gone;

    /** How many more may go now. @param perMinute 0 for as many as there are */
    int left(int perMinute, Instant now) {
        if (!now.isBefore(began.plus(MINUTE)) || now.isBefore(began)) {
            began = now;
            gone = 0;
        }
        return perMinute == 0 ? Integer.MAX_VALUE : Math.max(0, perMinute - gone);
    }

    void one() {
        gone++;
    }
}
