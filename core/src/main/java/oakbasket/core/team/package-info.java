/** Who of an office may do what: roles, what each may, and whose a round is. */
@NullMarked
package oakbasket.core.team;

import org.jspecify.annotations.NullMarked;
