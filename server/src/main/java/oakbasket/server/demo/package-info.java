/** The Fennbrook scenario, made by code. */
@NullMarked
package oakbasket.server.demo;

import org.jspecify.annotations.NullMarked;
