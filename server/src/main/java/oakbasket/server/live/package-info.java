/** Telling open desks what changed, by server-sent events. */
@NullMarked
package oakbasket.server.live;

import org.jspecify.annotations.NullMarked;
