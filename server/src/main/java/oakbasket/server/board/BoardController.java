package oakbasket.server.board;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Map;
import oakbasket.core.round.RoundState;
import oakbasket.core.standing.RoundCounts;
import oakbasket.core.team.Permission;
import oakbasket.server.link.Links;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.security.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The list of rounds, and the board of one. */
@RestController
@Needs(Permission.CHANGE)
class BoardController {

    record ListedRound(long id, RoundState state, String title, Instant changedAt, @Nullable Instant deadline, @Nullable String zone, @Nullable RoundCounts counts,
            @Nullable Long seriesId) {
    }

    @RecordBuilder
    @RecordBuilder.Options(builderMode = RecordBuilder.BuilderMode.STANDARD_AND_STAGED)
    record BoardView(long id, RoundState state, int version, String title, String note, Instant deadline, Instant graceEnd, boolean dateOnly, String zone, Instant now,
            Instant openedAt, @Nullable Instant closesAt, @Nullable Instant closedAt, @Nullable LocalDate keepUntil, boolean hasOpenLink, String folder, List<BoardItem> items,
            List<Board.Row> rows, RoundCounts counts) {
    }

    private final Board board;
    private final Rounds rounds;
    private final Links links;

    BoardController(Board board, Rounds rounds, Links links) {
        this.board = board;
        this.rounds = rounds;
        this.links = links;
    }

    @GetMapping("/api/rounds")
    List<ListedRound> all() {
        List<Rounds.Head> heads = rounds.composed();
        Map<Long, Board.Counted> counted = board.counts(heads.stream().filter(head -> head.state() != RoundState.DRAFT).map(Rounds.Head::id).toList());
        return heads.stream().map(head -> {
            Board.Counted round = counted.get(head.id());
            return round == null ? new ListedRound(head.id(), head.state(), head.title(), head.changedAt(), null, null, null, head.seriesId())
                    : new ListedRound(head.id(), head.state(), head.title(), head.changedAt(), round.round().deadline().instant(), round.round().zone().getId(), round.counts(),
                            head.seriesId());
        }).toList();
    }

    @GetMapping("/api/rounds/{id}/board")
    BoardView board(@PathVariable long id) {
        Board.Judged judged = board.judge(id);
        Round round = judged.round();
        return BoardControllerBoardViewBuilder.stagedBuilder().id(round.id()).state(round.state()).version(round.version()).title(round.title())
                .note(round.note()).deadline(round.deadline().instant()).graceEnd(round.terms(null).graceEnd()).dateOnly(round.deadline().dateOnly())
                .zone(round.zone().getId()).now(judged.now()).openedAt(round.openedAt()).closesAt(round.closesAt()).closedAt(round.closedAt())
                .keepUntil(round.keepUntil()).hasOpenLink(links.openOf(id).isPresent()).folder(round.folderPattern())
                .items(BoardItem.of(judged.items())).rows(judged.rows()).counts(judged.counts()).build();
    }

    @GetMapping("/api/rounds/{id}/moved")
    Board.Moved moved(@PathVariable long id, @RequestParam Instant since) {
        return board.moved(id, since);
    }

    @GetMapping("/api/baskets/{id}/row")
    Board.Row row(@PathVariable long id) {
        return board.judgeBasket(id);
    }
}
