package oakbasket.server.post;

import java.time.Instant;
import oakbasket.core.letter.LetterKind;

/** How many letters of one kind went in one hour. */
record LettersWent(LetterKind kind, Instant hour, int letters) {
}
