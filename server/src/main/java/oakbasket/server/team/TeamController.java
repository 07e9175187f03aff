package oakbasket.server.team;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import oakbasket.core.team.Permission;
import oakbasket.core.team.Role;
import oakbasket.server.account.Account;
import oakbasket.server.account.AccountService;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Needs;
import oakbasket.server.security.Noted;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Who belongs to the office. */
@RestController
@Needs(Permission.ADMINISTER)
class TeamController {

    /** @param now by the clock of the server, to tell which invitations have ended */
    record TeamView(List<Team.TeamMember> members, List<Invitation> invitations, Instant now) {
    }

    record NewInvitation(@Nullable String name, @Nullable String email, @Nullable Role role) {
    }

    record NewRole(int version, @Nullable Role role) {
    }

    /**
     * Somebody leaves.
     *
     * @param to who gets what they own; null where they own nothing
     */
    record Leaving(int version, @Nullable Long to) {
    }

    record ComingBack(int version) {
    }

    record ResetLink(String link) {
    }

    private final Team team;
    private final Invitations invitations;
    private final PasswordResets resets;
    private final AccountService accounts;
    private final Clock clock;

    TeamController(Team team, Invitations invitations, PasswordResets resets, AccountService accounts, Clock clock) {
        this.clock = clock;
        this.team = team;
        this.invitations = invitations;
        this.resets = resets;
        this.accounts = accounts;
    }

    @GetMapping("/api/team")
    @Needs(Permission.ADMINISTER)
    TeamView team() {
        return new TeamView(team.all(), invitations.all(), clock.instant());
    }

    @PostMapping("/api/team/invitations")
    @ResponseStatus(HttpStatus.CREATED)
    Invitations.Invited invite(@RequestBody NewInvitation wanted, @AuthenticationPrincipal Account account) {
        Noted.about(text(wanted.name()), text(wanted.email()), role(wanted.role()));
        return invitations.invite(text(wanted.name()), text(wanted.email()), role(wanted.role()), account);
    }

    /** Sends an invitation again, with a new link. */
    @PostMapping("/api/team/invitations/{id}/again")
    Invitations.Invited inviteAgain(@PathVariable long id, @AuthenticationPrincipal Account account) {
        return invitations.again(id, account);
    }

    @DeleteMapping("/api/team/invitations/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void withdrawInvitation(@PathVariable long id) {
        invitations.withdraw(id);
    }

    @PutMapping("/api/team/{id}/role")
    TeamView setRole(@PathVariable long id, @RequestBody NewRole wanted) {
        Noted.about(role(wanted.role()));
        team.setRole(id, wanted.version(), role(wanted.role()));
        return team();
    }

    /** Lets somebody leave; what they own goes to somebody else. */
    @PostMapping("/api/team/{id}/leave")
    TeamView letLeave(@PathVariable long id, @RequestBody Leaving wanted) {
        Long to = wanted.to();
        Noted.about(to == null ? "" : accounts.names(List.of(to)).getOrDefault(to, ""));
        team.leave(id, wanted.version(), to);
        return team();
    }

    @PostMapping("/api/team/{id}/back")
    TeamView letBack(@PathVariable long id, @RequestBody ComingBack wanted) {
        team.back(id, wanted.version());
        return team();
    }

    /** A link by which somebody can set a new password, to be handed over where letters do not arrive. */
    @PostMapping("/api/team/{id}/reset-link")
    ResetLink resetLink(@PathVariable long id) {
        return new ResetLink(resets.link(accounts.member(id)));
    }

    /** Lets somebody sign in with the password alone again. */
    @PostMapping("/api/team/{id}/end-second-factor")
    TeamView endFactorOf(@PathVariable long id) {
        team.endSecondFactor(id);
        return team();
    }

    private static Role role(@Nullable Role given) {
        if (given == null) {
            throw Problem.unreadable("unreadable");
        }
        return given;
    }

    private static String text(@Nullable String given) {
        return given == null ? "" : given;
    }
}
