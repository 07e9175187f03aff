/** Papers and answers that come by mail: taken in once, sorted, filed or put into the tray, and answered where a person wrote them. */
@NullMarked
package oakbasket.server.inward;

import org.jspecify.annotations.NullMarked;
