/** The office's own face for people outside: colours that can be read. */
@NullMarked
package oakbasket.core.brand;

import org.jspecify.annotations.NullMarked;
