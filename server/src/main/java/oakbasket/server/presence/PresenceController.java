package oakbasket.server.presence;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import oakbasket.core.team.Permission;
import oakbasket.server.account.Account;
import oakbasket.server.basket.Baskets;
import oakbasket.server.round.Rounds;
import oakbasket.server.security.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Who of the office looks at the same round. */
@RestController
@Needs(Permission.SEE)
class PresenceController {

    /** Whoever asks is there, with this basket open; none where it is null. */
    record HereNow(@Nullable Long basket) {
    }

    /**
     * A colleague who looks at the same round.
     *
     * @param person whose basket they have open; empty when none
     */
    record AlsoHere(long account, String name, String person) {
    }

    private final Presence presence;
    private final Rounds rounds;
    private final Baskets baskets;

    PresenceController(Presence presence, Rounds rounds, Baskets baskets) {
        this.presence = presence;
        this.rounds = rounds;
        this.baskets = baskets;
    }

    /** Tells that one is there, and learns who else is. */
    @PostMapping("/api/presence/{round}")
    List<AlsoHere> hereNow(@PathVariable long round, @RequestBody HereNow here, @AuthenticationPrincipal Account account) {
        rounds.head(round);
        List<Presence.There> others = presence.here(round, account.id(), account.name(), here.basket());
        Map<Long, String> people = baskets.names(others.stream().map(Presence.There::basket).filter(Objects::nonNull).distinct().toList());
        return others.stream().map(one -> new AlsoHere(one.account(), one.name(), one.basket() == null ? "" : people.getOrDefault(one.basket(), ""))).toList();
    }

    @DeleteMapping("/api/presence/{round}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void goneNow(@PathVariable long round, @AuthenticationPrincipal Account account) {
        presence.gone(round, account.id());
    }
}
