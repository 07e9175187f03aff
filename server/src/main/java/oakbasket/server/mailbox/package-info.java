/** The mailbox that papers are sent to. */
@NullMarked
package oakbasket.server.mailbox;

import org.jspecify.annotations.NullMarked;
