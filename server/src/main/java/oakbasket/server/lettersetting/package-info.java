/** What all letters of the office have in common: signature, who reads answers, the gap between letters, and the hours in which nobody is written to. */
@NullMarked
package oakbasket.server.lettersetting;

import org.jspecify.annotations.NullMarked;
