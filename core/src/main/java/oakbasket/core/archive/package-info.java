/** Archives of which every byte is known before the first one is sent: ZIP (PKWARE APPNOTE 6.3.10, with ZIP64) and BagIt bags (RFC 8493). */
@NullMarked
package oakbasket.core.archive;

import org.jspecify.annotations.NullMarked;
