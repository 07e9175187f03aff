/** A place for one person outside, in which papers go in both directions: what that person may do there, and how it stands. */
@NullMarked
package oakbasket.core.exchange;

import org.jspecify.annotations.NullMarked;
