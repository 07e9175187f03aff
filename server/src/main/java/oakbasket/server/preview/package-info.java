/** What can be shown of a file without opening it: text, tables and tracks, read within bounds. */
@NullMarked
package oakbasket.server.preview;

import org.jspecify.annotations.NullMarked;
