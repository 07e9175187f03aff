/** Who belongs to the office: invitations, roles, leaving with everything handed over, and a password that somebody forgot. */
@NullMarked
package oakbasket.server.team;

import org.jspecify.annotations.NullMarked;
