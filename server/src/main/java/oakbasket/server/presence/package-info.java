/** Who of the office looks at the same round at this moment. */
@NullMarked
package oakbasket.server.presence;

import org.jspecify.annotations.NullMarked;
