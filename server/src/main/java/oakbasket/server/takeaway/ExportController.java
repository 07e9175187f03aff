package oakbasket.server.takeaway;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import oakbasket.core.naming.SafeName;
import oakbasket.core.standing.BasketList;
import oakbasket.core.standing.Tile;
import oakbasket.server.board.Board;
import oakbasket.server.web.TableOut;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** The table of who sent what, to be taken away. Times are in the round's zone. */
@RestController
class ExportController {

    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm", Locale.ROOT);

    private final Board board;
    private final Words words;

    ExportController(Board board, Words words) {
        this.board = board;
        this.words = words;
    }

    @GetMapping("/api/rounds/{id}/table.csv")
    ResponseEntity<byte[]> csv(@PathVariable long id) {
        Board.Judged judged = board.judge(id);
        return TableOut.download(name(judged, ".csv"), "text/csv;charset=UTF-8", TableOut.csv(headers(judged), rows(judged)));
    }

    @GetMapping("/api/rounds/{id}/table.xlsx")
    ResponseEntity<byte[]> workbook(@PathVariable long id) {
        Board.Judged judged = board.judge(id);
        return TableOut.download(name(judged, ".xlsx"), "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
                TableOut.workbook(judged.round().title(), words.of("table.sheet"), headers(judged), rows(judged)));
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
        return headers;
    }

    private List<List<String>> rows(Board.Judged judged) {
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
