/** The office's own face for people outside: its name, logo, colours, and what stands at the foot. */
@NullMarked
package oakbasket.server.brand;

import org.jspecify.annotations.NullMarked;
