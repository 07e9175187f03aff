package oakbasket.server.account;

import java.security.Principal;
import java.time.Instant;

/**
 * A coordinator who can sign in.
 *
 * @param lastLook when "just in" was last marked as seen
 */
public record Account(long id, String name, String email, Instant lastLook) implements Principal {

    @Override
    public String getName() {
        return name;
    }
}
