package oakbasket.server.round;

import java.time.Duration;
import java.util.List;
import oakbasket.core.deadline.LocalDeadline;
import oakbasket.core.identity.Person;
import oakbasket.core.round.ItemSpec;

/** A sheet without faults, ready to be opened. */
record RoundPlan(String title, String note, List<ItemSpec> items, List<Person> people, LocalDeadline deadline, Duration warning, Duration grace,
        String folderPattern, String namePattern, boolean openLink, String passcode) {
}
