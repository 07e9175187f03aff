/** Rounds that come again by a recurrence rule. */
@NullMarked
package oakbasket.server.series;

import org.jspecify.annotations.NullMarked;
