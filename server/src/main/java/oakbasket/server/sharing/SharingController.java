package oakbasket.server.sharing;

import java.util.List;
import java.util.Objects;
import java.util.Set;
import oakbasket.core.team.Permission;
import oakbasket.core.team.Role;
import oakbasket.core.team.Share;
import oakbasket.server.account.Account;
import oakbasket.server.account.AccountService;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Needs;
import oakbasket.server.security.Noted;
import org.jspecify.annotations.Nullable;
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

    private static final int MOST_WITH = 1_000;

    /** A colleague with whom a round can be shared, or who can own it. */
    record Colleague(long id, String name, Role role) {
    }

    /**
     * How a round is shared.
     *
     * @param mayChange whether whoever asks may change it
     * @param colleagues everybody who belongs to the office
     */
    record RoundSharing(long owner, String ownerName, boolean wholeOffice, List<Long> with, boolean mayChange, List<Colleague> colleagues) {
    }

    record WantedSharing(@Nullable Long owner, @Nullable Boolean wholeOffice, @Nullable List<Long> with) {
    }

    private final Sharing sharing;
    private final AccountService accounts;

    SharingController(Sharing sharing, AccountService accounts) {
        this.sharing = sharing;
        this.accounts = accounts;
    }

    @GetMapping("/api/sharing/{round}")
    RoundSharing shared(@PathVariable long round, @AuthenticationPrincipal Account account) {
        return told(sharing.of(round), account);
    }

    /** Shares a round with the whole office or with some of it, and says who owns it. */
    @PutMapping("/api/sharing/{round}")
    RoundSharing share(@PathVariable long round, @RequestBody WantedSharing wanted, @AuthenticationPrincipal Account account) {
        List<Long> with = wanted.with() == null ? List.of() : wanted.with();
        if (wanted.owner() == null || wanted.wholeOffice() == null || with.size() > MOST_WITH || with.stream().anyMatch(Objects::isNull)) {
            throw Problem.unreadable("unreadable");
        }
        Noted.about(accounts.names(List.of(wanted.owner())).getOrDefault(wanted.owner(), ""), wanted.wholeOffice() ? "" : accounts.names(with).values());
        return told(sharing.change(round, new Share(wanted.owner(), wanted.wholeOffice(), Set.copyOf(with)), account), account);
    }

    private RoundSharing told(Share share, Account account) {
        return new RoundSharing(share.owner(), accounts.names(List.of(share.owner())).getOrDefault(share.owner(), ""), share.wholeOffice(), share.with().stream().sorted().toList(), share.settles(account.id(), account.role()),
                accounts.members().stream().filter(one -> one.endedAt() == null).map(one -> new Colleague(one.id(), one.name(), one.role())).toList());
    }
}
