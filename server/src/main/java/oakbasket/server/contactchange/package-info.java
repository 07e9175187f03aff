/** What is done to contacts and can be undone as a whole: imports, merging, discarding. */
@NullMarked
package oakbasket.server.contactchange;

import org.jspecify.annotations.NullMarked;
