/** Mail to senders while they are at it: a code that confirms an address, and the receipt. */
@NullMarked
package oakbasket.server.sendermail;

import org.jspecify.annotations.NullMarked;
