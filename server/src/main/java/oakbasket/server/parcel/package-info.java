/** Files handed out: parcels, their files, the links of those who may take them away, and what was taken away. */
@NullMarked
package oakbasket.server.parcel;

import org.jspecify.annotations.NullMarked;
