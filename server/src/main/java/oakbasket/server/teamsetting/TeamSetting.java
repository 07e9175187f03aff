package oakbasket.server.teamsetting;

import oakbasket.core.team.TeamTerms;

/**
 * What the office has settled about its coordinators.
 *
 * @param version a change names the version it was made from; 0 as long as nobody settled anything
 */
public record TeamSetting(TeamTerms terms, int version) {
}
