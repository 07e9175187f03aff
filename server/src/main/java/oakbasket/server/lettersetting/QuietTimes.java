package oakbasket.server.lettersetting;

import java.time.DateTimeException;
import java.time.LocalTime;
import java.util.List;
import oakbasket.core.fault.Fault;

/** Reads the ends of quiet hours as they are typed. */
public final class QuietTimes {

    private QuietTimes() {
    }

    /** Adds what is wrong with a local time, which is to be {@code HH:mm}. */
    public static void check(String field, String typed, List<Fault> faults) {
        try {
            if (!LocalTime.parse(typed).toString().equals(typed)) {
                faults.add(Fault.of(field, "not-a-time-of-step"));
            }
        } catch (DateTimeException unreadable) {
            faults.add(Fault.of(field, "not-a-time-of-step"));
        }
    }
}
