/** Hands a link over: as a QR code, and as a sheet of paper with the checklist, one for a person or one each for many. */
@NullMarked
package oakbasket.server.handout;

import org.jspecify.annotations.NullMarked;
