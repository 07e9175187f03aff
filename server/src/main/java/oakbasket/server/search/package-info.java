/** Finding people, rounds, files and receipt codes by a few letters. */
@NullMarked
package oakbasket.server.search;

import org.jspecify.annotations.NullMarked;
