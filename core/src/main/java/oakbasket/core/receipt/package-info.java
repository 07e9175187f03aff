/** Receipt codes a person can read out over the telephone, with a check symbol. */
@NullMarked
package oakbasket.core.receipt;

import org.jspecify.annotations.NullMarked;
