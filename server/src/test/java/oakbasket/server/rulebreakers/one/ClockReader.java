package oakbasket.server.rulebreakers.one;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZonedDateTime;
import java.util.Calendar;
import java.util.Date;

/** Asks the machine for the time, in every way there is. */
final class ClockReader {

    Object[] ways() {
        return new Object[] {Instant.now(), LocalDate.now(), LocalTime.now(), LocalDateTime.now(), ZonedDateTime.now(), System.currentTimeMillis(), new Date(), Calendar.getInstance(),
            Clock.systemUTC()};
    }
}
