/** The way to a mail server, and the folder that stands in for one. */
@NullMarked
package oakbasket.server.mail;

import org.jspecify.annotations.NullMarked;
