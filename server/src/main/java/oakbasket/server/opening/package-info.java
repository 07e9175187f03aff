/** Opening a draft: its items, its baskets and links, and word of who was asked. */
@NullMarked
package oakbasket.server.opening;

import org.jspecify.annotations.NullMarked;
