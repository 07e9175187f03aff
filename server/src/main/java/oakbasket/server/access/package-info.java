/** Keeps everybody who is signed in to what they may do, before anything of a request is read. */
@NullMarked
package oakbasket.server.access;

import org.jspecify.annotations.NullMarked;
