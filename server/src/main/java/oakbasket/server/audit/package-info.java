/** The trail of who did, saw or took away what. */
@NullMarked
package oakbasket.server.audit;

import org.jspecify.annotations.NullMarked;
