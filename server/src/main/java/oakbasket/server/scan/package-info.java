/** Asking a malware scanner about a file: the one that ships with the product, or clamd. */
@NullMarked
package oakbasket.server.scan;

import org.jspecify.annotations.NullMarked;
