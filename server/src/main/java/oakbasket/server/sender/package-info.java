/** The sender's side behind a request link: the basket page, beginning and ending a sending. Nothing here ever gives back what was sent. */
@NullMarked
package oakbasket.server.sender;

import org.jspecify.annotations.NullMarked;
