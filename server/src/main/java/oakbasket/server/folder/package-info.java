/** The folder trees as they are on the disk: listing, searching, renaming, moving, taking away. */
@NullMarked
package oakbasket.server.folder;

import org.jspecify.annotations.NullMarked;
