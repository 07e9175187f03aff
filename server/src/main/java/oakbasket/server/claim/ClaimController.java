package oakbasket.server.claim;

import oakbasket.core.identity.Claim;
import oakbasket.core.team.Permission;
import oakbasket.server.account.Account;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The coordinator's yes or no to what is claimed. */
@RestController
@Needs(Permission.CHANGE)
class ClaimController {

    /** From what was seen to what it shall be. */
    record ClaimDecision(@Nullable Claim from, @Nullable Claim to) {
    }

    private final Claims claims;

    ClaimController(Claims claims) {
        this.claims = claims;
    }

    @PostMapping("/api/claims/{submission}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void decide(@PathVariable long submission, @RequestBody ClaimDecision decision, @AuthenticationPrincipal Account account) {
        if (decision.from() == null || decision.to() == null) {
            throw Problem.unreadable("unreadable");
        }
        claims.decide(submission, decision.from(), decision.to(), account.id());
    }
}
