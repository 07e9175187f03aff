/** Today across all gathering rounds: just in, needs you, coming up. */
@NullMarked
package oakbasket.server.today;

import org.jspecify.annotations.NullMarked;
