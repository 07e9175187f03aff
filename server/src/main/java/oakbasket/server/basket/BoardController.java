package oakbasket.server.basket;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import oakbasket.core.allowance.AllowanceChange;
import oakbasket.core.fault.Fault;
import oakbasket.core.fault.FaultyValue;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.core.round.RoundState;
import oakbasket.core.standing.RoundCounts;
import oakbasket.server.account.Account;
import oakbasket.server.link.Links;
import oakbasket.server.round.Item;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.problem.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** The list of rounds, the board, and what is done to its baskets. */
@RestController
class BoardController {

    private static final int MOST_AT_ONCE = 50_000;

    record ListedRound(long id, RoundState state, String title, Instant changedAt, @Nullable Instant deadline, @Nullable String zone, @Nullable RoundCounts counts,
            @Nullable Long seriesId) {
    }

    record BoardItem(long id, String title, boolean required, int minFiles, int maxFiles, List<String> owedBy) {
    }

    record BoardView(long id, RoundState state, int version, String title, String note, Instant deadline, Instant graceEnd, boolean dateOnly, String zone, Instant now,
            Instant openedAt, @Nullable Instant closesAt, @Nullable Instant closedAt, @Nullable LocalDate keepUntil, boolean hasOpenLink, String folder, List<BoardItem> items,
            List<Board.Row> rows, RoundCounts counts) {
    }

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

    record AddLate(List<LatePerson> people, List<String> groups) {
    }

    private final Board board;
    private final Rounds rounds;
    private final BasketActs acts;
    private final Links links;

    BoardController(Board board, Rounds rounds, BasketActs acts, Links links) {
        this.board = board;
        this.rounds = rounds;
        this.acts = acts;
        this.links = links;
    }

    @GetMapping("/api/rounds")
    List<ListedRound> all() {
        return rounds.all().stream().map(head -> {
            if (head.state() == RoundState.DRAFT) {
                return new ListedRound(head.id(), head.state(), head.title(), head.changedAt(), null, null, null, head.seriesId());
            }
            Round round = rounds.opened(head.id());
            return new ListedRound(head.id(), head.state(), head.title(), head.changedAt(), round.deadline().instant(), round.zone().getId(), board.counts(head.id()), head.seriesId());
        }).toList();
    }

    @GetMapping("/api/rounds/{id}/board")
    BoardView board(@PathVariable long id) {
        Board.Judged judged = board.judge(id);
        Round round = judged.round();
        return new BoardView(round.id(), round.state(), round.version(), round.title(), round.note(), round.deadline().instant(), round.terms(null).graceEnd(),
                round.deadline().dateOnly(), round.zone().getId(), judged.now(), round.openedAt(), round.closesAt(), round.closedAt(), round.keepUntil(),
                links.openOf(id).isPresent(), round.folderPattern(), items(judged.items()), judged.rows(), judged.counts());
    }

    @GetMapping("/api/baskets/{id}/row")
    Board.Row row(@PathVariable long id) {
        return board.judgeBasket(id);
    }

    /** Changes one basket or many; all of them or none. */
    @PostMapping("/api/rounds/{id}/acts")
    BasketActs.BasketsChanged act(@PathVariable long id, @RequestBody BasketChange act, @AuthenticationPrincipal Account account) {
        if (act.baskets() == null || act.baskets().isEmpty() || act.baskets().size() > MOST_AT_ONCE) {
            throw Problem.field("baskets", "choose-people", MOST_AT_ONCE);
        }
        return acts.apply(id, act.baskets(), change(act), account.id());
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
        for (int i = 0; i < body.people().size(); i++) {
            LatePerson late = body.people().get(i);
            try {
                people.add(new Person(text(late.name()).strip(), MailAddress.parse(text(late.email()))));
            } catch (FaultyValue problem) {
                errors.add(problem.at("people[" + i + "]"));
            }
        }
        if (!errors.isEmpty()) {
            throw Problem.fields(errors);
        }
        return acts.addLate(id, people, body.groups(), account.id());
    }

    static List<BoardItem> items(List<Item> items) {
        return items.stream().map(item -> new BoardItem(item.id(), item.spec().title(), item.spec().required(), item.spec().minFiles(), item.spec().maxFiles(), item.owedBy()))
                .toList();
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
