/** What every HTTP answer shares: errors as problem details, security, headers, limits on strangers, the two pages. */
@NullMarked
package oakbasket.server.web;

import org.jspecify.annotations.NullMarked;
