/** The filing journal as a coordinator reads it, takes it away, and takes single steps of it back. */
@NullMarked
package oakbasket.server.retrace;

import org.jspecify.annotations.NullMarked;
