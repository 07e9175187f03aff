package oakbasket.server.journal;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * Which entries are wanted; null means any.
 *
 * @param find words in either place
 * @param before only entries with a smaller id
 */
public record JournalFilter(@Nullable Long file, @Nullable Long round, @Nullable Act act, @Nullable String find, @Nullable Instant from, @Nullable Instant to, @Nullable Long batch, @Nullable Long before) {
}
