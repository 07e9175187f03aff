/** Receiving bytes by the tus 1.0.0 protocol, with everything needed to survive a crash. */
@NullMarked
package oakbasket.server.upload;

import org.jspecify.annotations.NullMarked;
