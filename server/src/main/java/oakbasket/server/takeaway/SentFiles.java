package oakbasket.server.takeaway;

import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import oakbasket.core.receipt.ReceiptCode;
import oakbasket.server.basket.Submission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.board.Board;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Item;
import oakbasket.server.storage.Known;
import oakbasket.server.web.TableOut;
import oakbasket.server.words.Words;
import org.springframework.stereotype.Component;

/** The table of who sent what, a line for each file. Times are in the round's zone. */
@Component
public class SentFiles {

    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm", Locale.ROOT);

    private final Board board;
    private final ReceivedFiles files;
    private final Submissions submissions;
    private final Words words;

    SentFiles(Board board, ReceivedFiles files, Submissions submissions, Words words) {
        this.board = board;
        this.files = files;
        this.submissions = submissions;
        this.words = words;
    }

    /** The table of a round as CSV. */
    public byte[] csv(long round) {
        return TableOut.csv(headers(), rows(board.judge(round)));
    }

    List<String> headers() {
        return Stream.of("person", "email", "item", "file", "original", "received", "receipt", "sha256", "review", "review-reason", "identity").map(column -> word("column." + column)).toList();
    }

    List<List<String>> rows(Board.Judged judged) {
        ZoneId zone = judged.round().zone();
        Map<Long, Board.Row> people = judged.rows().stream().collect(Collectors.toMap(Board.Row::id, row -> row));
        Map<Long, String> items = judged.items().stream().collect(Collectors.toMap(Item::id, item -> item.spec().title()));
        List<ReceivedFile> received = files.ofRound(judged.round().id());
        Map<Long, Submission> sendings = submissions.byIds(received.stream().map(ReceivedFile::submissionId).distinct().toList()).stream()
                .collect(Collectors.toMap(Submission::id, sending -> sending));
        return received.stream().map(file -> {
            Board.Row person = Known.in(people, file.basketId());
            return List.of(person.name(), person.email(), items.getOrDefault(file.itemId(), ""), file.storedName(), file.originalName(), time(file.receivedAt(), zone),
                    new ReceiptCode(Known.in(sendings, file.submissionId()).receiptCode()).toString(), HexFormat.of().formatHex(file.sha256()),
                    word("review." + file.review()), file.reviewReason(), word(Known.in(sendings, file.submissionId()).identityKey()));
        }).toList();
    }

    private static String time(Instant at, ZoneId zone) {
        return TIME.format(at.atZone(zone));
    }

    private String word(String key) {
        return words.of(key);
    }
}
