/** Mail addresses as typed, and the people typed or pasted by a coordinator. */
@NullMarked
package oakbasket.core.identity;

import org.jspecify.annotations.NullMarked;
