/** What can be taken away: tables of a round, and a calendar of deadlines to subscribe to. */
@NullMarked
package oakbasket.server.takeaway;

import org.jspecify.annotations.NullMarked;
