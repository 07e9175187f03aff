package oakbasket.server.apppassword;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/** A password of a program. @param lastUsed to the minute; null when it never was */
public record AppPassword(long id, String name, Instant createdAt, @Nullable Instant lastUsed) {
}
