/** The pretend post office of the demo: a real SMTP and IMAP server inside that reaches nobody, where letters to invented people are read, answered, refused, deferred and sent back. */
@NullMarked
package oakbasket.server.postoffice;

import org.jspecify.annotations.NullMarked;
