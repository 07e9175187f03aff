/** Rounds that come again: recurrence rules of RFC 5545, and the dates of each round. */
@NullMarked
package oakbasket.core.recurrence;

import org.jspecify.annotations.NullMarked;
