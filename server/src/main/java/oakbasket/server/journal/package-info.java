/** The filing journal: every placement, move, copy, removal and restoration of a file, with who, when and why. */
@NullMarked
package oakbasket.server.journal;

import org.jspecify.annotations.NullMarked;
