/** Taking out files that should never have come, with a reason, and putting them back. */
@NullMarked
package oakbasket.server.removal;

import org.jspecify.annotations.NullMarked;
