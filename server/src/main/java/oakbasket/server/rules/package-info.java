/** The rules of filing: kept in versions, checked while they are typed, made ready for use. */
@NullMarked
package oakbasket.server.rules;

import org.jspecify.annotations.NullMarked;
