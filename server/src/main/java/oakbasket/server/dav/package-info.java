/** The folders as a read-only share by WebDAV (RFC 4918, class 1), so that a computer can mount or mirror them. */
@NullMarked
package oakbasket.server.dav;

import org.jspecify.annotations.NullMarked;
