/** Baskets: the board, the basket panel, and what a sender sees and starts behind a request link. */
@NullMarked
package oakbasket.server.basket;

import org.jspecify.annotations.NullMarked;
