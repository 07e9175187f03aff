/** What a sheet is checked against, and reading what is pasted or typed while it is composed; the checks themselves are in the core. */
@NullMarked
package oakbasket.server.compose;

import org.jspecify.annotations.NullMarked;
