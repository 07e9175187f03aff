package oakbasket.server.takeaway;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import oakbasket.core.naming.SafeName;
import oakbasket.core.standing.BasketList;
import oakbasket.core.standing.Tile;
import oakbasket.core.team.Permission;
import oakbasket.server.Settings;
import oakbasket.server.board.Board;
import oakbasket.server.link.Link;
import oakbasket.server.link.Links;
import oakbasket.server.security.Needs;
import oakbasket.server.storage.Acting;
import oakbasket.server.web.PublicAddress;
import oakbasket.server.web.TableOut;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** The table of who sent what, to be taken away. Times are in the round's zone. */
@RestController
@Needs(Permission.CHANGE)
class ExportController {

    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm", Locale.ROOT);

    private final Board board;
    private final SentFiles sentFiles;
    private final Links links;
    private final Words words;
    private final Settings settings;

    ExportController(Board board, SentFiles sentFiles, Links links, Words words, Settings settings) {
        this.board = board;
        this.sentFiles = sentFiles;
        this.links = links;
        this.settings = settings;
        this.words = words;
    }

    @GetMapping("/api/rounds/{id}/table.csv")
    ResponseEntity<byte[]> csv(@PathVariable long id, HttpServletRequest request) {
        Board.Judged judged = board.judge(id);
        return TableOut.download(name(judged, ".csv"), "text/csv;charset=UTF-8", TableOut.csv(headers(judged), rows(judged, PublicAddress.of(settings, request))));
    }

    @GetMapping("/api/rounds/{id}/table.xlsx")
    ResponseEntity<byte[]> workbook(@PathVariable long id, HttpServletRequest request) {
        Board.Judged judged = board.judge(id);
        return TableOut.download(name(judged, ".xlsx"), "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
                TableOut.workbook(judged.round().title(), words.of("table.sheet"), headers(judged), rows(judged, PublicAddress.of(settings, request))));
    }

    /** One line for each file. */
    @GetMapping("/api/rounds/{id}/files.csv")
    ResponseEntity<byte[]> filesCsv(@PathVariable long id) {
        Board.Judged judged = board.judge(id);
        return TableOut.download(fileListName(judged, ".csv"), "text/csv;charset=UTF-8", TableOut.csv(sentFiles.headers(), sentFiles.rows(judged)));
    }

    /** The same as a workbook. */
    @GetMapping("/api/rounds/{id}/files.xlsx")
    ResponseEntity<byte[]> filesWorkbook(@PathVariable long id) {
        Board.Judged judged = board.judge(id);
        return TableOut.download(fileListName(judged, ".xlsx"), "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
                TableOut.workbook(judged.round().title(), words.of("table.sheet"), sentFiles.headers(), sentFiles.rows(judged)));
    }

    private String fileListName(Board.Judged judged, String ending) {
        return SafeName.of(words.of("table.files", judged.round().title()) + ending);
    }

    private static String name(Board.Judged judged, String ending) {
        return SafeName.of(judged.round().title() + ending);
    }

    private List<String> headers(Board.Judged judged) {
        List<String> headers = new ArrayList<>();
        for (String column : List.of("person", "email", "organisation", "reference", "groups", "standing", "deadline", "in-time", "late-exact", "late-days", "files", "to-check", "last")) {
            headers.add(word("column." + column));
        }
        judged.items().forEach(item -> headers.add(item.spec().title()));
        headers.add(word("column.note"));
        headers.add(word("column.link"));
        return headers;
    }

    private List<List<String>> rows(Board.Judged judged, String address) {
        Map<Long, Link> ofBaskets = links.ofRound(judged.round().id());
        ZoneId zone = judged.round().zone();
        return judged.rows().stream().filter(row -> !row.removed()).map(row -> {
            List<String> cells = new ArrayList<>(List.of(row.name(), row.email(), row.organisation(), row.reference(), row.groups(), standing(row), time(row.deadline(), zone),
                    !row.in(BasketList.ASKED) || row.in(BasketList.PAUSED) ? "" : word("timeliness." + row.timeliness()), late(row.pastDeadlineMinutes()),
                    row.pastDeadlineMinutes() == 0 ? "" : Integer.toString(row.pastDeadlineWorkingDays()), Integer.toString(row.files()), Integer.toString(row.toCheck()),
                    time(row.lastArrival(), zone)));
            for (Tile tile : row.tiles()) {
                int files = tile.files();
                cells.add(word("standing." + tile.standing()) + (files > 1 ? " (" + files + ")" : ""));
            }
            cells.add(row.note());
            Link link = ofBaskets.get(row.id());
            cells.add(link == null || Acting.readsOnly() ? "" : address + links.path(link));
            return cells;
        }).toList();
    }

    private String standing(Board.Row row) {
        String progress = word("progress." + row.progress());
        return row.waived() ? word("waived") : (row.walkIn() ? word("walk-in") + ", " : "") + progress + (row.paused() ? ", " + word("paused") : "");
    }

    private String late(long minutes) {
        Duration past = Duration.ofMinutes(minutes);
        return minutes == 0 ? "" : words.of("late", past.toDays(), past.toHoursPart(), past.toMinutesPart());
    }

    private static String time(@Nullable Instant at, ZoneId zone) {
        return at == null ? "" : TIME.format(at.atZone(zone));
    }

    private String word(String key) {
        return words.of(key);
    }
}
