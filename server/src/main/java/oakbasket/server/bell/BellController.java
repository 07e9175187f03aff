package oakbasket.server.bell;

import java.time.Instant;
import oakbasket.core.team.Permission;
import oakbasket.server.account.Account;
import oakbasket.server.security.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The bell of the top bar. */
@RestController
@Needs(Permission.OWN)
class BellController {

    /** Up to where somebody has looked. */
    record BellSeen(long upToFile, long upToMail, @Nullable Instant upToTaken) {
    }

    private final Bell bell;

    BellController(Bell bell) {
        this.bell = bell;
    }

    /** What came since the last look. */
    @GetMapping("/api/bell")
    Bell.Rings rings(@AuthenticationPrincipal Account account) {
        return bell.of(account.id());
    }

    @PostMapping("/api/bell/seen")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void bellSeen(@RequestBody BellSeen seen, @AuthenticationPrincipal Account account) {
        bell.seen(account.id(), seen.upToFile(), seen.upToMail(), seen.upToTaken());
    }
}
