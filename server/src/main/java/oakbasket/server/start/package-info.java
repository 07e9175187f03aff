/** Where the program begins. */
@NullMarked
package oakbasket.server.start;

import org.jspecify.annotations.NullMarked;
