/** When letters are due: a round's reminder plan, the moments it means for one person, and the decision for each with its reason. */
@NullMarked
package oakbasket.core.reminder;

import org.jspecify.annotations.NullMarked;
