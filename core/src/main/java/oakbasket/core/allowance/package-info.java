/** What a coordinator grants, asks or notes about one basket: extension, excuse, pause, removal, note; and the one place that changes it. */
@NullMarked
package oakbasket.core.allowance;

import org.jspecify.annotations.NullMarked;
