package oakbasket.server.account;

import java.time.Instant;
import oakbasket.core.team.Role;
import org.jspecify.annotations.Nullable;

/**
 * Somebody who belongs to the office, or did.
 *
 * @param endedAt when they left; null while they belong to it
 * @param version a change names the version it was made from
 * @param secondFactor whether signing in asks for a code besides the password
 */
public record Member(long id, String name, String email, Role role, Instant since, @Nullable Instant endedAt, int version, boolean secondFactor) {
}
