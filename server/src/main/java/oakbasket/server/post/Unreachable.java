package oakbasket.server.post;

import oakbasket.core.letter.LetterState;

/** A basket whose person a letter did not reach. @param trouble what was said */
record Unreachable(long basketId, long letterId, LetterState state, String trouble) {
}
