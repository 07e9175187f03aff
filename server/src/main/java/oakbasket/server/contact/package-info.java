/** The people who may be asked, and their groups. */
@NullMarked
package oakbasket.server.contact;

import org.jspecify.annotations.NullMarked;
