/** What the person of an exchange sees and does there: its part of the page of senders, and taking away what lies there for them. */
@NullMarked
package oakbasket.server.exchangepage;

import org.jspecify.annotations.NullMarked;
