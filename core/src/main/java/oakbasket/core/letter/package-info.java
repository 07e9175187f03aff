/** What letters say: their kinds, their states on the way, and texts with fields in braces. */
@NullMarked
package oakbasket.core.letter;

import org.jspecify.annotations.NullMarked;
