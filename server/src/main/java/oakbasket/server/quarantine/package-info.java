/** The quarantine as a coordinator sees it, and what can be decided about a file there. */
@NullMarked
package oakbasket.server.quarantine;

import org.jspecify.annotations.NullMarked;
