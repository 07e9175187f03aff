package oakbasket.server.board;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import oakbasket.core.team.Permission;
import oakbasket.server.Settings;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.held.HeldFiles;
import oakbasket.server.link.Link;
import oakbasket.server.link.Links;
import oakbasket.server.problem.Problem;
import oakbasket.server.removal.RemovedFiles;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Rounds;
import oakbasket.server.security.Needs;
import oakbasket.server.storage.Known;
import oakbasket.server.web.PublicAddress;
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
@Needs(Permission.CHANGE)
class PanelController {

    private static final int MOST_REASONS = 8;

    /**
     * A basket in full.
     *
     * @param hasLink whether a personal link of it works
     * @param linkId the last personal link it was given, withdrawn or not; null when it never had one
     */
    record Panel(long id, long roundId, Board.Row row, List<BoardItem> items, List<PanelFiles.PanelFile> files, List<RemovedOne> removed, List<HeldOne> held, List<Story.Event> story, boolean hasLink,
            @Nullable Long linkId, @Nullable LocalDate extension, String extensionReason) {
    }

    /** A file of the basket that lies in quarantine; {@code found} is empty when it only waits to be checked. */
    record HeldOne(long id, long itemId, String name, long bytes, Instant at, String found) {
    }

    /** A file that was taken out and can be put back. */
    record RemovedOne(long fileId, String name, String reason, Instant at) {
    }

    /** One line of all links of a round. */
    record PersonLink(String name, String email, String url) {
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
    private final Story story;
    private final ReceivedFiles files;
    private final PanelFiles shown;
    private final RemovedFiles removed;
    private final HeldFiles held;
    private final Links links;
    private final Settings settings;

    PanelController(Board board, Rounds rounds, Baskets baskets, Story story, ReceivedFiles files, PanelFiles shown, RemovedFiles removed, HeldFiles held, Links links, Settings settings) {
        this.removed = removed;
        this.held = held;
        this.board = board;
        this.rounds = rounds;
        this.baskets = baskets;
        this.story = story;
        this.files = files;
        this.shown = shown;
        this.links = links;
        this.settings = settings;
    }

    @GetMapping("/api/baskets/{id}")
    Panel panel(@PathVariable long id) {
        Basket basket = baskets.byId(id);
        List<ReceivedFile> received = files.withClaimed(id);
        return new Panel(id, basket.roundId(), board.judgeBasket(id), BoardItem.of(rounds.items(basket.roundId())), shown.of(received),
                removed.ofBasket(id).stream().filter(one -> one.restoredAt() == null).map(one -> new RemovedOne(one.fileId(), one.name(), one.reason(), one.removedAt())).toList(),
                held.ofBasket(id).stream().filter(one -> one.outcome() == null).map(one -> new HeldOne(one.id(), one.itemId(), one.originalName(), one.sizeBytes(), one.receivedAt(), one.found())).toList(),
                story.of(basket, received),
                links.ofBasket(id).isPresent(), links.lastOf(id).map(Link::id).orElse(null), basket.extension(), basket.allowance().extensionReason());
    }

    /** The personal link of a basket, shown again. */
    @Needs(Permission.CHANGE)
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

    /** The personal links of everybody in a round who is not removed. */
    @Needs(Permission.CHANGE)
    @GetMapping("/api/rounds/{id}/links")
    List<PersonLink> links(@PathVariable long id, HttpServletRequest request) {
        String address = PublicAddress.of(settings, request);
        Map<Long, Link> ofBaskets = links.ofRound(id);
        return board.judge(id).rows().stream().filter(row -> !row.removed() && ofBaskets.containsKey(row.id()))
                .map(row -> new PersonLink(row.name(), row.email(), address + links.path(Known.in(ofBaskets, row.id())))).toList();
    }

    @Needs(Permission.CHANGE)
    @GetMapping("/api/rounds/{id}/link")
    LinkView openLink(@PathVariable long id, HttpServletRequest request) {
        return view(links.openOf(id).orElseThrow(() -> Problem.notFound("no-link")), request);
    }

    /** Everything of a round that waits for review, the oldest first, and the reasons given most for returning. */
    @GetMapping("/api/rounds/{id}/to-check")
    ToCheck toCheck(@PathVariable long id) {
        List<PanelFiles.PanelFile> waiting = shown.of(files.toCheck(id)).stream().filter(file -> file.claim() == null || file.claim().waits()).toList();
        Map<Long, String> titles = rounds.itemTitles(waiting.stream().map(PanelFiles.PanelFile::itemId).distinct().toList());
        Map<Long, String> names = baskets.names(waiting.stream().map(PanelFiles.PanelFile::basketId).distinct().toList());
        return new ToCheck(rounds.opened(id).title(), waiting.stream().map(file -> new Waiting(file, names.getOrDefault(file.basketId(), ""),
                titles.getOrDefault(file.itemId(), ""))).toList(), files.reasons(MOST_REASONS));
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
        if (body.files() == null || body.files().stream().anyMatch(Objects::isNull)) {
            throw Problem.unreadable("unreadable");
        }
        if (files.unaccept(body.files()) < body.files().size()) {
            throw Problem.conflict("changed-elsewhere");
        }
    }

    private LinkView view(Link link, HttpServletRequest request) {
        return new LinkView(PublicAddress.of(settings, request) + links.path(link));
    }
}
