package oakbasket.server.retrace;

import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import oakbasket.core.team.Permission;
import oakbasket.server.Settings;
import oakbasket.server.account.Account;
import oakbasket.server.account.AccountService;
import oakbasket.server.journal.Act;
import oakbasket.server.journal.Journal;
import oakbasket.server.journal.JournalEntry;
import oakbasket.server.journal.JournalFilter;
import oakbasket.server.journal.WhyWords;
import oakbasket.server.round.Rounds;
import oakbasket.server.security.Needs;
import oakbasket.server.storage.Roots;
import oakbasket.server.web.TableOut;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The filing journal. */
@RestController
@Needs(Permission.CHANGE)
class JournalController {

    private static final int MOST_LINES = 100_000;
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm:ss", Locale.ROOT);

    /**
     * One line.
     *
     * @param who the account's name; empty when a rule or the program did it
     * @param canUndo whether it is a step that can be taken back, as far as can be told without trying
     */
    record JournalLine(long id, long file, Act act, String from, String to, Instant at, String who, String why, String round, @Nullable Long batch, boolean undone, boolean canUndo) {
    }

    /** The newest lines; {@code more} tells whether older ones fit as well. */
    record JournalPage(List<JournalLine> lines, boolean more) {
    }

    private final Journal journal;
    private final Retrace retrace;
    private final AccountService accounts;
    private final Rounds rounds;
    private final Roots roots;
    private final WhyWords reasons;
    private final Words words;
    private final Settings settings;

    JournalController(Journal journal, Retrace retrace, AccountService accounts, Rounds rounds, Roots roots, WhyWords reasons, Words words, Settings settings) {
        this.journal = journal;
        this.retrace = retrace;
        this.accounts = accounts;
        this.rounds = rounds;
        this.roots = roots;
        this.reasons = reasons;
        this.words = words;
        this.settings = settings;
    }

    @GetMapping("/api/journal")
    JournalPage page(@RequestParam(required = false) @Nullable Long file, @RequestParam(required = false) @Nullable Long round, @RequestParam(required = false) @Nullable Act act,
            @RequestParam(required = false) @Nullable String find, @RequestParam(required = false) @Nullable Instant from, @RequestParam(required = false) @Nullable Instant to,
            @RequestParam(required = false) @Nullable Long batch, @RequestParam(required = false) @Nullable Long before) {
        List<JournalLine> found = lines(journal.found(new JournalFilter(file, round, act, find, from, to, batch, before), Journal.MOST + 1));
        return new JournalPage(found.stream().limit(Journal.MOST).toList(), found.size() > Journal.MOST);
    }

    /** The same as a table; at most 100,000 lines, the newest. */
    @GetMapping("/api/journal.csv")
    ResponseEntity<byte[]> csv(@RequestParam(required = false) @Nullable Long file, @RequestParam(required = false) @Nullable Long round, @RequestParam(required = false) @Nullable Act act,
            @RequestParam(required = false) @Nullable String find, @RequestParam(required = false) @Nullable Instant from, @RequestParam(required = false) @Nullable Instant to,
            @RequestParam(required = false) @Nullable Long batch) {
        ZoneId zone = settings.zone();
        List<List<String>> rows = new ArrayList<>();
        for (JournalLine line : lines(journal.found(new JournalFilter(file, round, act, find, from, to, batch, null), MOST_LINES))) {
            rows.add(List.of(TIME.format(line.at().atZone(zone)), words.of("act." + line.act()), line.round(), line.from(), line.to(), line.who(), line.why(), Long.toString(line.file()),
                    line.undone() ? words.of("act.undone") : ""));
        }
        List<String> headers = Stream.of("at", "act", "round", "from", "to", "who", "why", "file", "undone").map(column -> words.of("journal." + column)).toList();
        return TableOut.download(words.of("journal.name"), "text/csv;charset=UTF-8", TableOut.csv(headers, rows));
    }

    @PostMapping("/api/journal/{id}/undo")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void undo(@PathVariable long id, @AuthenticationPrincipal Account account) {
        retrace.undo(id, account.id());
    }

    private List<JournalLine> lines(List<JournalEntry> entries) {
        Map<Long, String> names = accounts.names(entries.stream().map(JournalEntry::accountId).filter(Objects::nonNull).distinct().toList());
        Map<Long, String> titles = rounds.all().stream().collect(Collectors.toMap(Rounds.Head::id, Rounds.Head::title));
        return entries.stream().map(entry -> new JournalLine(entry.id(), entry.fileId(), entry.act(), place(entry.fromPlace()), place(entry.toPlace()), entry.at(),
                entry.accountId() == null ? "" : names.getOrDefault(entry.accountId(), ""), reasons.of(entry.why()), titles.getOrDefault(entry.roundId(), ""), entry.batchId(), entry.undone(),
                !entry.undone() && (entry.act() == Act.MOVED || entry.act() == Act.RENAMED || entry.act() == Act.COPIED || entry.act() == Act.REMOVED && !entry.toPlace().isEmpty()))).toList();
    }

    private String place(String place) {
        return place.isEmpty() ? "" : roots.words(place);
    }
}
