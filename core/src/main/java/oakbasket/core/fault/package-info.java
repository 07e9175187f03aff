/** What is wrong with something typed, told by a code and what belongs to it; the words are found by the code in the message files of a language. */
@NullMarked
package oakbasket.core.fault;

import org.jspecify.annotations.NullMarked;
