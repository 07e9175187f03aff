/** Changes of a round that gathers: first told whom they would affect, then applied as a whole. */
@NullMarked
package oakbasket.server.change;

import org.jspecify.annotations.NullMarked;
