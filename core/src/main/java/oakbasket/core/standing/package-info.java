/** What the rules say of an item and of a basket at one instant, and the counts made of that. */
@NullMarked
package oakbasket.core.standing;

import org.jspecify.annotations.NullMarked;
