/** Passwords of programs, made for one purpose each and revoked by themselves. */
@NullMarked
package oakbasket.server.apppassword;

import org.jspecify.annotations.NullMarked;
