package oakbasket.core.reminder;

import java.time.Instant;
import java.util.List;
import java.util.Optional;

/** What a look at the plan says for one person: nothing is due, a letter goes, or none goes and why. */
public sealed interface ReminderDecision {

    /** No step fell into the time looked at. */
    record NothingDue() implements ReminderDecision {
    }

    /** This letter goes. */
    record Send(PlannedLetter letter) implements ReminderDecision {
    }

    /** This letter would have gone, but for the reason. */
    record Skip(PlannedLetter letter, Recipient.Reason reason) implements ReminderDecision {
    }

    /**
     * Decides for the time since the last look. Of several steps missed in between only the newest counts, so that a standstill is never followed by a
     * pile of letters.
     *
     * @param after the last look; steps up to it are done with, also those that an extension or a change of plan moved there
     */
    static ReminderDecision decide(List<PlannedLetter> letters, Recipient recipient, Instant after, Instant now) {
        Optional<PlannedLetter> newest = letters.stream().filter(letter -> letter.at().isAfter(after) && !letter.at().isAfter(now)).reduce((one, later) -> later);
        if (newest.isEmpty()) {
            return new NothingDue();
        }
        PlannedLetter due = newest.get();
        if (due.against() != null) {
            return new Skip(due, due.against());
        }
        return recipient.against(now).<ReminderDecision>map(reason -> new Skip(due, reason)).orElseGet(() -> new Send(due));
    }
}
