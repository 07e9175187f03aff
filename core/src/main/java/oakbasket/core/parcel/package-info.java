/** Files handed out: who may take them away now, what counts as having taken one away, and what keeps a parcel from being handed out. */
@NullMarked
package oakbasket.core.parcel;

import org.jspecify.annotations.NullMarked;
