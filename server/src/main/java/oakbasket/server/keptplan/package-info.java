/** Plans of letters kept by name, to be used again in other rounds. */
@NullMarked
package oakbasket.server.keptplan;

import org.jspecify.annotations.NullMarked;
