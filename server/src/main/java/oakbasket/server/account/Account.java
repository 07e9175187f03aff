package oakbasket.server.account;

import java.security.Principal;
import java.time.Instant;
import oakbasket.core.team.Role;

/**
 * Somebody of the office who can sign in.
 *
 * @param role what they are
 * @param lastLook when "just in" was last marked as seen
 */
public record Account(long id, String name, String email, Role role, Instant lastLook) implements Principal {

    @Override
    public String getName() {
        return name;
    }
}
