package oakbasket.server.tray;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import oakbasket.core.team.Permission;
import oakbasket.server.account.Account;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Rounds;
import oakbasket.server.security.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The sorting tray. */
@RestController
@Needs(Permission.CHANGE)
class TrayController {

    record TrayView(int count, List<TrayList.TrayEntry> entries) {
    }

    /** Somebody a file may be given to, and something it may be. */
    record TrayChoice(long id, String name) {
    }

    record TrayChoices(List<TrayChoice> people, List<TrayChoice> items) {
    }

    record TrayDecision(@Nullable List<Long> files, @Nullable List<Long> senders, @Nullable Long basketId, @Nullable Long itemId, @Nullable Boolean always) {
    }

    record TrayAct(long id) {
    }

    private final TrayList list;
    private final Tray tray;
    private final Baskets baskets;
    private final Rounds rounds;

    TrayController(TrayList list, Tray tray, Baskets baskets, Rounds rounds) {
        this.list = list;
        this.tray = tray;
        this.baskets = baskets;
        this.rounds = rounds;
    }

    @GetMapping("/api/tray")
    TrayView all() {
        List<TrayList.TrayEntry> entries = list.all();
        return new TrayView(entries.size(), entries);
    }

    @GetMapping("/api/tray/choices/{round}")
    TrayChoices choices(@PathVariable long round) {
        rounds.opened(round);
        List<Basket> people = tray.people(round);
        Map<Long, String> names = baskets.names(people.stream().map(Basket::id).toList());
        return new TrayChoices(people.stream().map(basket -> new TrayChoice(basket.id(), names.getOrDefault(basket.id(), ""))).toList(),
                rounds.items(round).stream().map(item -> new TrayChoice(item.id(), item.spec().title())).toList());
    }

    @PostMapping("/api/tray")
    TrayAct decide(@RequestBody TrayDecision decision, @AuthenticationPrincipal Account account) {
        List<Long> files = decision.files() == null ? List.of() : decision.files();
        List<Long> senders = decision.senders() == null ? List.of() : decision.senders();
        if (files.isEmpty() || files.size() > TrayList.MOST || senders.size() > TrayList.MOST || files.stream().anyMatch(Objects::isNull) || senders.stream().anyMatch(Objects::isNull)) {
            throw Problem.unreadable("unreadable");
        }
        return new TrayAct(tray.decide(files, senders, decision.basketId(), decision.itemId(), decision.always() != null && decision.always(), account.id()));
    }

    @PostMapping("/api/tray/{act}/undo")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void undo(@PathVariable long act, @AuthenticationPrincipal Account account) {
        tray.undo(act, account.id());
    }
}
