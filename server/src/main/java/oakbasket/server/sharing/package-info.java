/** Whose a round is, and with whom of the office it is shared. */
@NullMarked
package oakbasket.server.sharing;

import org.jspecify.annotations.NullMarked;
