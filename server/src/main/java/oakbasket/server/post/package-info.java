/** Letters to the people asked: what they say, when they go, their way to the mail server, and where each of them is. */
@NullMarked
package oakbasket.server.post;

import org.jspecify.annotations.NullMarked;
