/** Request links: tokens, admission, passcodes. */
@NullMarked
package oakbasket.server.link;

import org.jspecify.annotations.NullMarked;
