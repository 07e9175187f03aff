/** What becomes of a file between its last byte and its place: checked for malware, opened where it is an archive. */
@NullMarked
package oakbasket.core.arrival;

import org.jspecify.annotations.NullMarked;
