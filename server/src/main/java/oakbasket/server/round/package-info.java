/** Rounds: the sheet a draft is composed on, its checks, opening, closing, reopening, and Today. */
@NullMarked
package oakbasket.server.round;

import org.jspecify.annotations.NullMarked;
