/** Where received files go: rules of conditions and effects, what they decide and why, what is wrong with a set of them, and what they would change. */
@NullMarked
package oakbasket.core.filing;

import org.jspecify.annotations.NullMarked;
