/** The sheet a round is composed on, as typed; everything that can be wrong with it or odd about it; and the plan that comes of a sheet without faults. */
@NullMarked
package oakbasket.core.compose;

import org.jspecify.annotations.NullMarked;
