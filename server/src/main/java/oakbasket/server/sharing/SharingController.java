package oakbasket.server.sharing;

import java.util.List;
import oakbasket.core.team.Permission;
import oakbasket.core.team.Share;
import oakbasket.server.account.Account;
import oakbasket.server.account.AccountService;
import oakbasket.server.security.Needs;
import oakbasket.server.security.Noted;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** With whom of the office a round is shared. */
@RestController
@Needs(Permission.CHANGE)
class SharingController {

    private final Sharing sharing;
    private final AccountService accounts;

    SharingController(Sharing sharing, AccountService accounts) {
        this.sharing = sharing;
        this.accounts = accounts;
    }

    @GetMapping("/api/sharing/{round}")
    SharingView shared(@PathVariable long round, @AuthenticationPrincipal Account account) {
        return sharing.view(sharing.of(round), account);
    }

    /** Shares a round with the whole office or with some of it, and says who owns it. */
    @PutMapping("/api/sharing/{round}")
    SharingView share(@PathVariable long round, @RequestBody WantedSharing wanted, @AuthenticationPrincipal Account account) {
        Share share = wanted.share();
        Noted.about(accounts.names(List.of(share.owner())).getOrDefault(share.owner(), ""), share.wholeOffice() ? "" : accounts.names(share.with()).values());
        return sharing.view(sharing.change(round, share, account), account);
    }
}
