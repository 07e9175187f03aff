/** Rules put to files that are here already: tried first, then done as one batch that can be taken back. */
@NullMarked
package oakbasket.server.refiling;

import org.jspecify.annotations.NullMarked;
