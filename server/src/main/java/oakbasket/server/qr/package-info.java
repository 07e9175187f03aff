/** Texts as QR codes. */
@NullMarked
package oakbasket.server.qr;

import org.jspecify.annotations.NullMarked;
