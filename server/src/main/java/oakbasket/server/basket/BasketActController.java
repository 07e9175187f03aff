package oakbasket.server.basket;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import oakbasket.core.allowance.AllowanceChange;
import oakbasket.core.fault.Fault;
import oakbasket.core.fault.FaultyValue;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.core.team.Permission;
import oakbasket.server.account.Account;
import oakbasket.server.account.AccountService;
import oakbasket.server.link.LinkAct;
import oakbasket.server.link.LinkActs;
import oakbasket.server.mail.MailReach;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Needs;
import oakbasket.server.security.Noted;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** What coordinators do to baskets, and its undoing. */
@RestController
@Needs(Permission.CHANGE)
class BasketActController {

    private static final int MOST_AT_ONCE = 50_000;

    /** What a coordinator does; which of the others count depends on the kind. */
    enum ActKind { EXTEND, EXCUSE, EXCUSE_ITEM, PAUSE, REMOVE, NOTE }

    /**
     * A change of baskets.
     *
     * @param on whether it is set or taken back; for all but extensions and notes
     * @param date the last day of an extension; null takes it back
     */
    record BasketChange(ActKind kind, List<BasketActs.Target> baskets, boolean on, @Nullable LocalDate date, @Nullable String reason, @Nullable Long itemId, @Nullable String text) {
    }

    record LatePerson(@Nullable String name, @Nullable String email) {
    }

    record AddLate(@Nullable List<LatePerson> people, @Nullable List<String> groups) {
    }

    /**
     * Something that was done to baskets.
     *
     * @param link whether it was done to links; it is undone as such then
     * @param people to how many baskets, or links, it was done
     * @param name one of the people; the one where there is only one
     * @param by the coordinator who did it
     */
    record DoneAct(long id, boolean link, Instant at, String kind, String said, int people, String name, String by, boolean undone) {
    }

    private final BasketActs acts;
    private final LinkActs linkActs;
    private final AccountService accounts;
    private final MailReach reach;

    BasketActController(BasketActs acts, LinkActs linkActs, AccountService accounts, MailReach reach) {
        this.reach = reach;
        this.acts = acts;
        this.linkActs = linkActs;
        this.accounts = accounts;
    }

    /** Changes one basket or many; all of them or none. */
    @PostMapping("/api/rounds/{id}/acts")
    BasketActs.BasketsChanged act(@PathVariable long id, @RequestBody BasketChange act, @AuthenticationPrincipal Account account) {
        if (act.baskets() == null || act.baskets().isEmpty() || act.baskets().size() > MOST_AT_ONCE) {
            throw Problem.field("baskets", "choose-people", MOST_AT_ONCE);
        }
        Noted.about(act.kind(), act.baskets().size());
        return acts.apply(id, act.baskets(), change(act), account.id());
    }

    /** What was done in a round, the newest first. */
    @GetMapping("/api/rounds/{id}/acts")
    List<DoneAct> done(@PathVariable long id) {
        List<RoundAct> all = acts.ofRound(id);
        List<LinkAct> toLinks = linkActs.ofRound(id);
        Map<Long, String> names = accounts.names(Stream.concat(all.stream().map(RoundAct::accountId), toLinks.stream().map(LinkAct::accountId)).distinct().toList());
        return Stream.concat(
                all.stream().map(act -> new DoneAct(act.id(), false, act.at(), act.kind(), act.said(), act.people(), act.name(), names.getOrDefault(act.accountId(), ""), act.undoneAt() != null)),
                toLinks.stream().map(act -> new DoneAct(act.id(), true, act.at(), act.kind(), act.said(), act.links(), "", names.getOrDefault(act.accountId(), ""), act.undoneAt() != null)))
                .sorted(Comparator.comparing(DoneAct::at).reversed()).toList();
    }

    @PostMapping("/api/acts/{id}/undo")
    BasketActs.BasketsChanged undo(@PathVariable long id) {
        return acts.undo(id);
    }

    /** Asks more people in a round that gathers. */
    @PostMapping("/api/rounds/{id}/people")
    BasketActs.BasketsChanged addLate(@PathVariable long id, @RequestBody AddLate body, @AuthenticationPrincipal Account account) {
        List<Person> people = new ArrayList<>();
        List<Fault> errors = new ArrayList<>();
        List<LatePerson> typed = body.people() == null ? List.of() : body.people();
        for (int i = 0; i < typed.size(); i++) {
            LatePerson late = typed.get(i);
            try {
                people.add(new Person(text(late.name()).strip(), reach.needed(MailAddress.parse(text(late.email())))));
            } catch (FaultyValue problem) {
                errors.add(problem.at("people[" + i + "]"));
            }
        }
        if (!errors.isEmpty()) {
            throw Problem.fields(errors);
        }
        return acts.addLate(id, people, body.groups() == null ? List.of() : body.groups(), account.id());
    }

    private static AllowanceChange change(BasketChange act) {
        return switch (act.kind()) {
            case EXTEND -> new AllowanceChange.Extend(act.date(), text(act.reason()));
            case EXCUSE -> new AllowanceChange.ExcuseAll(act.on());
            case EXCUSE_ITEM -> new AllowanceChange.ExcuseItem(act.itemId() == null ? 0 : act.itemId(), act.on());
            case PAUSE -> new AllowanceChange.Pause(act.on());
            case REMOVE -> new AllowanceChange.Remove(act.on());
            case NOTE -> new AllowanceChange.Note(text(act.text()));
        };
    }

    private static String text(@Nullable String given) {
        return given == null ? "" : given;
    }
}
