/** When a coordinator is told by mail of what has come. */
@NullMarked
package oakbasket.core.digest;

import org.jspecify.annotations.NullMarked;
