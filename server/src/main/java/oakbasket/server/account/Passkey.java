package oakbasket.server.account;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * A passkey as its owner sees it.
 *
 * @param label the name of the device, as its owner calls it
 * @param usedAt when somebody signed in with it last; null when nobody did
 */
record Passkey(long id, String label, Instant madeAt, @Nullable Instant usedAt) {
}
