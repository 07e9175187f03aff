/** What is known of a message that came by mail before anybody reads it: whether a person wrote it, what a report says, and how sure it is whose it is. */
@NullMarked
package oakbasket.core.inward;

import org.jspecify.annotations.NullMarked;
