/** One contact's page: every round they were in. */
@NullMarked
package oakbasket.server.person;

import org.jspecify.annotations.NullMarked;
