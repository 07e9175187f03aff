/** What will go: the letters of the next weeks with their reasons, moved, skipped or held before they go, and a dry run of a plan before its round is opened. */
@NullMarked
package oakbasket.server.outlook;

import org.jspecify.annotations.NullMarked;
