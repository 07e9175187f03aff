/** Putting a received file into its folder under its name. */
@NullMarked
package oakbasket.server.filing;

import org.jspecify.annotations.NullMarked;
