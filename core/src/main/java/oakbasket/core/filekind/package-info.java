/** The kinds of file an item may accept, judged by content type and by the ending of the name together. */
@NullMarked
package oakbasket.core.filekind;

import org.jspecify.annotations.NullMarked;
