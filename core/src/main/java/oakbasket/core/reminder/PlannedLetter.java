package oakbasket.core.reminder;

import java.time.Instant;
import oakbasket.core.letter.LetterKind;

/** A letter that a plan means for one person. */
public record PlannedLetter(LetterKind kind, Instant at) {
}
