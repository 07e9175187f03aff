/** How much room rounds, users and the office take up, and how much they may. */
@NullMarked
package oakbasket.server.space;

import org.jspecify.annotations.NullMarked;
