/** How much room a round, a user and the office may take up, and when somebody is warned. */
@NullMarked
package oakbasket.core.quota;

import org.jspecify.annotations.NullMarked;
