/** Blank forms that senders can take along. */
@NullMarked
package oakbasket.server.form;

import org.jspecify.annotations.NullMarked;
