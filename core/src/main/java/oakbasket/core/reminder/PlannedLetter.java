package oakbasket.core.reminder;

import java.time.Instant;
import oakbasket.core.letter.LetterKind;
import org.jspecify.annotations.Nullable;

/**
 * A letter that a plan means for one person.
 *
 * @param at when it goes
 * @param step the moment the plan itself means, by which a step is answered once; another than {@code at} only where somebody moved it
 * @param against why a coordinator does not want it to go; null when they do
 */
public record PlannedLetter(LetterKind kind, Instant at, Instant step, Recipient.@Nullable Reason against) {

    /** A letter as the plan means it. */
    public PlannedLetter(LetterKind kind, Instant at) {
        this(kind, at, at, null);
    }
}
