/** The sorting tray: files that wait for somebody to decide whose they are, what they are, and where they go. */
@NullMarked
package oakbasket.server.tray;

import org.jspecify.annotations.NullMarked;
