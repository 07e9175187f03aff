/** The set of a closed round, handed over whole: as a ZIP or as a bag with checksums, each file verified before. */
@NullMarked
package oakbasket.server.handover;

import org.jspecify.annotations.NullMarked;
