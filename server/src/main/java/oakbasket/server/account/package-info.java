/** Coordinators: the first account, signing in and out. */
@NullMarked
package oakbasket.server.account;

import org.jspecify.annotations.NullMarked;
