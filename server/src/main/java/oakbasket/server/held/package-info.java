/** The records of files that are kept apart because malware was found in them, or because nobody could check them yet. */
@NullMarked
package oakbasket.server.held;

import org.jspecify.annotations.NullMarked;
