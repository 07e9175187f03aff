/** The trail of who did, saw or took away what: how its entries hang together. */
@NullMarked
package oakbasket.core.audit;

import org.jspecify.annotations.NullMarked;
