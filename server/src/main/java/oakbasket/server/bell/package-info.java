/** The bell of the top bar: what came since a coordinator last looked. */
@NullMarked
package oakbasket.server.bell;

import org.jspecify.annotations.NullMarked;
