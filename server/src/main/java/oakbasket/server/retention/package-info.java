/** The end of papers: rounds whose date has come are purged unless somebody holds them, and the bin is emptied on its date. */
@NullMarked
package oakbasket.server.retention;

import org.jspecify.annotations.NullMarked;
