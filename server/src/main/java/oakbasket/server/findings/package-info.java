/** Files that were changed by hand on the disk: noticed by a look at everything, and reconciled by choice. */
@NullMarked
package oakbasket.server.findings;

import org.jspecify.annotations.NullMarked;
