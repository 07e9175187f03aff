/** Shows the page of an open link inside web sites of one's own, and in no others. */
@NullMarked
package oakbasket.server.frame;

import org.jspecify.annotations.NullMarked;
