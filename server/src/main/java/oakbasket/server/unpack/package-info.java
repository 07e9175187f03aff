/** Reading ZIP files that somebody hostile may have made. */
@NullMarked
package oakbasket.server.unpack;

import org.jspecify.annotations.NullMarked;
