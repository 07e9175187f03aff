/** Where the application gets the time from. */
@NullMarked
package oakbasket.server.clock;

import org.jspecify.annotations.NullMarked;
