package oakbasket.server.teamsetting;

import java.util.List;
import oakbasket.core.fault.FaultyValue;
import oakbasket.core.team.Permission;
import oakbasket.core.team.TeamTerms;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** What the office has settled about its coordinators. */
@RestController
@Needs(Permission.ADMINISTER)
class TeamSettingController {

    record TypedTeamSetting(@Nullable Boolean openLinks, @Nullable Boolean handOut, @Nullable Integer mostLiveLinks, int version) {
    }

    private final TeamSettings settings;

    TeamSettingController(TeamSettings settings) {
        this.settings = settings;
    }

    @GetMapping("/api/team-settings")
    TeamSetting settled() {
        return settings.now();
    }

    @PutMapping("/api/team-settings")
    TeamSetting settle(@RequestBody TypedTeamSetting typed) {
        if (typed.openLinks() == null || typed.handOut() == null) {
            throw Problem.unreadable("unreadable");
        }
        try {
            return settings.change(new TeamTerms(typed.openLinks(), typed.handOut(), typed.mostLiveLinks()), typed.version());
        } catch (FaultyValue wrong) {
            throw Problem.fields(List.of(wrong.at("mostLiveLinks")));
        }
    }
}
