/** Places for one person outside in which papers go in both directions. */
@NullMarked
package oakbasket.server.exchange;

import org.jspecify.annotations.NullMarked;
