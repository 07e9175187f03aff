package oakbasket.server.basket;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import oakbasket.core.standing.Review;
import oakbasket.server.Settings;
import oakbasket.server.account.AccountService;
import oakbasket.server.link.Link;
import oakbasket.server.link.Links;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Item;
import oakbasket.server.round.Rounds;
import oakbasket.server.problem.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The basket panel, links to hand over, and the files that wait for review. */
@RestController
class PanelController {

    private static final int MOST_REASONS = 8;

    /** One line of a person's story; {@code by} is the coordinator who did it, null when nobody of the office did. */
    record Event(Instant at, String what, @Nullable String detail, int count, @Nullable String by, boolean undone) {
    }

    record Panel(long id, long roundId, Board.Row row, List<BoardController.BoardItem> items, List<PanelFiles.PanelFile> files, List<Event> story, boolean hasLink,
            @Nullable LocalDate extension, String extensionReason) {
    }

    record LinkView(String url) {
    }

    /** A file that waits for review. */
    record Waiting(PanelFiles.PanelFile file, String person, String item) {
    }

    record ToCheck(String title, List<Waiting> files, List<String> reasons) {
    }

    record Accepted(List<Long> files) {
    }

    private final Board board;
    private final Rounds rounds;
    private final Baskets baskets;
    private final BasketActs acts;
    private final ReceivedFiles files;
    private final PanelFiles shown;
    private final Links links;
    private final AccountService accounts;
    private final Settings settings;

    PanelController(Board board, Rounds rounds, Baskets baskets, BasketActs acts, ReceivedFiles files, PanelFiles shown, Links links, AccountService accounts, Settings settings) {
        this.board = board;
        this.rounds = rounds;
        this.baskets = baskets;
        this.acts = acts;
        this.files = files;
        this.shown = shown;
        this.links = links;
        this.accounts = accounts;
        this.settings = settings;
    }

    @GetMapping("/api/baskets/{id}")
    Panel panel(@PathVariable long id) {
        Basket basket = baskets.byId(id);
        List<ReceivedFile> received = files.withClaimed(id);
        return new Panel(id, basket.roundId(), board.judgeBasket(id), BoardController.items(rounds.items(basket.roundId())), shown.of(received), story(basket, received),
                links.ofBasket(id).isPresent(), basket.extension(), basket.allowance().extensionReason());
    }

    /** The personal link of a basket, shown again. */
    @GetMapping("/api/baskets/{id}/link")
    LinkView link(@PathVariable long id, HttpServletRequest request) {
        return view(links.ofBasket(id).orElseThrow(() -> Problem.notFound("no-link")), request);
    }

    /** Notes that the link was handed over to the person. */
    @PostMapping("/api/baskets/{id}/handed-over")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void handedOver(@PathVariable long id) {
        baskets.handedOver(id);
    }

    @GetMapping("/api/rounds/{id}/link")
    LinkView openLink(@PathVariable long id, HttpServletRequest request) {
        return view(links.openOf(id).orElseThrow(() -> Problem.notFound("no-link")), request);
    }

    /** Everything of a round that waits for review, the oldest first, and the reasons given most for returning. */
    @GetMapping("/api/rounds/{id}/to-check")
    ToCheck toCheck(@PathVariable long id) {
        Map<Long, String> titles = rounds.items(id).stream().collect(Collectors.toMap(Item::id, item -> item.spec().title()));
        List<PanelFiles.PanelFile> waiting = shown.of(files.toCheck(id));
        Map<Long, String> names = shown.names(waiting.stream().map(PanelFiles.PanelFile::basketId).distinct().toList());
        return new ToCheck(rounds.opened(id).title(), waiting.stream().map(file -> new Waiting(file, names.getOrDefault(file.basketId(), ""),
                titles.containsKey(file.itemId()) ? titles.get(file.itemId()) : rounds.itemTitle(file.itemId()))).toList(), files.reasons(MOST_REASONS));
    }

    /** Accepts everything of a basket that waits for review. */
    @PostMapping("/api/baskets/{id}/accept-all")
    Accepted acceptAll(@PathVariable long id) {
        return new Accepted(files.acceptAll(baskets.byId(id).id()).stream().map(ReceivedFile::id).toList());
    }

    /** Takes the acceptance of files back. */
    @PostMapping("/api/files/unaccept")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void unaccept(@RequestBody Accepted body) {
        if (files.unaccept(body.files()) < body.files().size()) {
            throw Problem.conflict("changed-elsewhere");
        }
    }

    private LinkView view(Link link, HttpServletRequest request) {
        return new LinkView(settings.base(request) + links.path(link));
    }

    private List<Event> story(Basket basket, List<ReceivedFile> received) {
        List<Event> story = new ArrayList<>();
        add(story, basket.askedAt(), "asked", null);
        add(story, basket.openedAt(), "opened", null);
        List<ActTable.Act> done = acts.ofBasket(basket.id());
        done.forEach(act -> story.add(new Event(act.at(), act.kind(), act.said().isEmpty() ? null : act.said(), 1, accounts.current(act.accountId()).name(), act.undoneAt() != null)));
        if (done.stream().noneMatch(act -> act.kind().equals("excuse"))) {
            add(story, basket.allowance().waivedAt(), "excuse", null);
        }
        Map<Long, Submission> sendings = shown.sendings(received);
        received.stream().collect(Collectors.groupingBy(ReceivedFile::submissionId)).forEach((id, sent) -> {
            Submission sending = sendings.get(id);
            boolean claimed = sending.claim() != null;
            story.add(new Event(sent.get(sent.size() - 1).receivedAt(), claimed ? "claimed" : "sent", claimed ? sending.declaredName() : null, sent.size(), null, false));
            if (sending.claimDecidedAt() != null && sending.claimDecidedBy() != null) {
                story.add(new Event(sending.claimDecidedAt(), sending.keptApart() ? "claim-declined" : "claim-accepted", null, sent.size(),
                        accounts.current(sending.claimDecidedBy()).name(), false));
            }
        });
        received.forEach(file -> {
            if (file.review() != Review.NONE) {
                add(story, file.reviewedAt(), file.review() == Review.ACCEPTED ? "accepted" : "returned",
                        file.storedName() + (file.reviewReason().isEmpty() ? "" : ": " + file.reviewReason()));
            }
        });
        story.sort(Comparator.comparing(Event::at).reversed());
        return story;
    }

    private static void add(List<Event> story, @Nullable Instant at, String what, @Nullable String detail) {
        if (at != null) {
            story.add(new Event(at, what, detail, 1, null, false));
        }
    }
}
