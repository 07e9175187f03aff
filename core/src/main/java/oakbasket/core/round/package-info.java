/** What is asked: the round, its states, and the checklist items with their limits. */
@NullMarked
package oakbasket.core.round;

import org.jspecify.annotations.NullMarked;
