package oakbasket.server.clock;

import java.time.Clock;
import java.time.Instant;
import org.springframework.stereotype.Component;

/** The time of the machine itself, whatever time the application runs at: the times that its disks write can be compared with nothing else. */
@Component
public class MachineTime {

    private final Clock real = Clock.systemUTC();

    /** What time it is on this machine. */
    public Instant now() {
        return real.instant();
    }
}
