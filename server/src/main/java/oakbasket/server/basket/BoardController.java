package oakbasket.server.basket;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import oakbasket.core.receipt.ReceiptCode;
import oakbasket.core.round.RoundState;
import oakbasket.core.standing.Review;
import oakbasket.core.standing.RoundCounts;
import oakbasket.server.Settings;
import oakbasket.server.link.Link;
import oakbasket.server.link.Links;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Item;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.web.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The list of rounds, the board and the basket panel. */
@RestController
class BoardController {

    record ListedRound(long id, RoundState state, String title, Instant changedAt, @Nullable Instant deadline, @Nullable String zone, @Nullable RoundCounts counts) {
    }

    record BoardItem(long id, String title, boolean required, int minFiles, int maxFiles) {
    }

    record BoardView(long id, RoundState state, String title, String note, Instant deadline, Instant graceEnd, boolean dateOnly, String zone, Instant now, Instant openedAt,
            @Nullable Instant closedAt, boolean hasOpenLink, String folder, List<BoardItem> items, List<Board.Row> rows, RoundCounts counts) {
    }

    record PanelFile(long id, long itemId, String name, String originalName, String path, long bytes, String sha256, String mediaType, Instant receivedAt,
            Review review, @Nullable Instant reviewedAt, String reviewReason, String receipt, @Nullable String declaredAs, @Nullable Long sameAs) {
    }

    /** One line of a person's story. */
    record Event(Instant at, String what, @Nullable String detail, int count) {
    }

    record Panel(long id, long roundId, Board.Row row, List<BoardItem> items, List<PanelFile> files, List<Event> story, boolean hasLink, @Nullable LocalDate extension, String extensionReason) {
    }

    record LinkView(String url) {
    }

    record Excuse(boolean excused) {
    }

    /** An extension: {@code date} as {@code yyyy-MM-dd}; null takes it back. */
    record Extend(@Nullable LocalDate date, @Nullable String reason) {
    }

    record Waive(long itemId, boolean waived) {
    }

    private final Board board;
    private final Rounds rounds;
    private final Baskets baskets;
    private final ReceivedFiles files;
    private final Submissions submissions;
    private final Links links;
    private final Settings settings;

    BoardController(Board board, Rounds rounds, Baskets baskets, ReceivedFiles files, Submissions submissions, Links links, Settings settings) {
        this.board = board;
        this.rounds = rounds;
        this.baskets = baskets;
        this.files = files;
        this.submissions = submissions;
        this.links = links;
        this.settings = settings;
    }

    @GetMapping("/api/rounds")
    List<ListedRound> all() {
        return rounds.all().stream().map(head -> {
            if (head.state() == RoundState.DRAFT) {
                return new ListedRound(head.id(), head.state(), head.title(), head.changedAt(), null, null, null);
            }
            Board.Judged judged = board.judge(head.id());
            return new ListedRound(head.id(), head.state(), head.title(), head.changedAt(), judged.round().deadline().instant(),
                    judged.round().zone().getId(), judged.counts());
        }).toList();
    }

    @GetMapping("/api/rounds/{id}/board")
    BoardView board(@PathVariable long id) {
        Board.Judged judged = board.judge(id);
        Round round = judged.round();
        return new BoardView(round.id(), round.state(), round.title(), round.note(), round.deadline().instant(),
                round.terms(null, null).graceEnd(), round.deadline().dateOnly(), round.zone().getId(), judged.now(), round.openedAt(), round.closedAt(), links.openOf(id).isPresent(), round.folderPattern(),
                items(judged.items()), judged.rows(), judged.counts());
    }

    @GetMapping("/api/baskets/{id}/row")
    Board.Row row(@PathVariable long id) {
        return board.judgeBasket(id);
    }

    @GetMapping("/api/baskets/{id}")
    Panel panel(@PathVariable long id) {
        Basket basket = baskets.byId(id);
        List<ReceivedFile> received = files.ofBasket(id);
        Map<Long, Submission> sendings = submissions.ofBasket(id).stream().collect(Collectors.toMap(Submission::id, Function.identity()));
        List<PanelFile> shown = received.stream().map(file -> panelFile(file, sendings.get(file.submissionId()), received)).toList();
        return new Panel(id, basket.roundId(), board.judgeBasket(id), items(rounds.items(basket.roundId())), shown, story(basket, received),
                links.ofBasket(id).isPresent(), basket.extensionDate(), basket.extensionReason());
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

    /** Excuses an item of a basket, or takes that back. */
    @PostMapping("/api/baskets/{id}/waiver")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void waive(@PathVariable long id, @RequestBody Waive body) {
        Basket basket = baskets.byId(id);
        if (rounds.items(basket.roundId()).stream().noneMatch(item -> item.id() == body.itemId())) {
            throw Problem.notFound("no-item");
        }
        baskets.waiveItem(id, body.itemId(), body.waived());
    }

    /** Excuses a whole basket, or takes that back. */
    @PostMapping("/api/baskets/{id}/excused")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void excuse(@PathVariable long id, @RequestBody Excuse body) {
        baskets.waive(baskets.byId(id).id(), body.excused());
    }

    /** Gives a basket a deadline of its own, or takes it back. */
    @PostMapping("/api/baskets/{id}/extension")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void extend(@PathVariable long id, @RequestBody Extend body) {
        Round round = rounds.opened(baskets.byId(id).roundId());
        baskets.extend(id, round.zone(), body.date(), body.reason() == null ? "" : body.reason());
    }

    private LinkView view(Link link, HttpServletRequest request) {
        String base = settings.publicAddress() != null ? settings.publicAddress().toString().replaceAll("/+$", "")
                : request.getScheme() + "://" + request.getHeader("Host");
        return new LinkView(base + links.path(link));
    }

    private static List<BoardItem> items(List<Item> items) {
        return items.stream().map(item -> new BoardItem(item.id(), item.spec().title(), item.spec().required(), item.spec().minFiles(), item.spec().maxFiles())).toList();
    }

    private static PanelFile panelFile(ReceivedFile file, Submission sending, List<ReceivedFile> all) {
        Long sameAs = all.stream().filter(other -> other.id() < file.id() && java.util.Arrays.equals(other.sha256(), file.sha256()))
                .map(ReceivedFile::id).findFirst().orElse(null);
        String declaredAs = sending.selfDeclared() ? sending.declaredName() + " <" + sending.declaredEmail() + ">" : null;
        return new PanelFile(file.id(), file.itemId(), file.storedName(), file.originalName(), file.storedPath(), file.sizeBytes(),
                HexFormat.of().formatHex(file.sha256()), file.mediaType(), file.receivedAt(), file.review(), file.reviewedAt(), file.reviewReason(),
                new ReceiptCode(sending.receiptCode()).toString(), declaredAs, sameAs);
    }

    private static List<Event> story(Basket basket, List<ReceivedFile> received) {
        List<Event> story = new ArrayList<>();
        add(story, basket.askedAt(), "asked", null);
        add(story, basket.openedAt(), "opened", null);
        add(story, basket.waivedAt(), "excused", null);
        received.stream().collect(Collectors.groupingBy(ReceivedFile::submissionId)).values().forEach(sent ->
                story.add(new Event(sent.get(sent.size() - 1).receivedAt(), "sent", null, sent.size())));
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
            story.add(new Event(at, what, detail, 1));
        }
    }
}
