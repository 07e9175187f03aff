/** The board: rounds, baskets and files put together and judged, remembered in memory, and the panel of one basket. */
@NullMarked
package oakbasket.server.board;

import org.jspecify.annotations.NullMarked;
