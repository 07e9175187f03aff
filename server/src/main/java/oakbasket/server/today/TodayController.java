package oakbasket.server.today;

import oakbasket.core.team.Permission;
import oakbasket.server.account.Account;
import oakbasket.server.account.AccountService;
import oakbasket.server.security.Needs;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The page the day begins with. */
@RestController
@Needs(Permission.OWN)
class TodayController {

    private final TodayOverview overview;
    private final AccountService accounts;

    TodayController(TodayOverview overview, AccountService accounts) {
        this.overview = overview;
        this.accounts = accounts;
    }

    @GetMapping("/api/today")
    TodayOverview.Today today(@AuthenticationPrincipal Account signedIn) {
        return overview.of(signedIn);
    }

    /** Marks all arrivals as seen. */
    @PostMapping("/api/today/seen")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void seen(@AuthenticationPrincipal Account signedIn) {
        accounts.look(signedIn);
    }
}
