/** Naming patterns, safe names for any disk, and numbering where names clash. */
@NullMarked
package oakbasket.core.naming;

import org.jspecify.annotations.NullMarked;
