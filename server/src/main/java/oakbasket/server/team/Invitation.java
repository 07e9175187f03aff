package oakbasket.server.team;

import java.time.Instant;
import oakbasket.core.team.Role;

/**
 * Somebody was asked to belong to the office.
 *
 * @param endsAt when the link in the letter stops working
 * @param trouble why the letter could not go; empty when it did
 */
record Invitation(long id, String name, String email, Role role, long invitedBy, Instant madeAt, Instant endsAt, String trouble) {
}
