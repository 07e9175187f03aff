/** The words of the message files, found by their keys. */
@NullMarked
package oakbasket.server.words;

import org.jspecify.annotations.NullMarked;
