/** The pick-up page, and taking away what stands on it. */
@NullMarked
package oakbasket.server.pickup;

import org.jspecify.annotations.NullMarked;
