/** Deciding whose a sending is that came under the address of somebody asked, from a sender who only said so. */
@NullMarked
package oakbasket.server.claim;

import org.jspecify.annotations.NullMarked;
