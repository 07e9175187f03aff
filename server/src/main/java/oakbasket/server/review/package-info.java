/** Received files: looking at them, taking them away, accepting and returning. */
@NullMarked
package oakbasket.server.review;

import org.jspecify.annotations.NullMarked;
