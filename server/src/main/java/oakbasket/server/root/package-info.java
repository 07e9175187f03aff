/** The folder roots of an office: adding and taking one out of use, and what the disk below each can do. */
@NullMarked
package oakbasket.server.root;

import org.jspecify.annotations.NullMarked;
