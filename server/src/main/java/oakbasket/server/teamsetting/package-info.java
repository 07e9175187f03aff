/** What the office has settled about its coordinators, and whether somebody may do something. */
@NullMarked
package oakbasket.server.teamsetting;

import org.jspecify.annotations.NullMarked;
