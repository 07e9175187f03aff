/** Papers that came without a link: put in at the desk, or found in a folder. They wait in the tray until somebody says whose they are and what. */
@NullMarked
package oakbasket.server.loose;

import org.jspecify.annotations.NullMarked;
