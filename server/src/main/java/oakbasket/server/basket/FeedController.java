package oakbasket.server.basket;

import jakarta.servlet.http.HttpServletRequest;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.TreeMap;
import oakbasket.core.standing.BasketList;
import oakbasket.server.Settings;
import oakbasket.server.account.Account;
import oakbasket.server.link.Hash;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.SecretKeys;
import oakbasket.server.storage.Transactions;
import oakbasket.server.web.Caller;
import oakbasket.server.web.Limits;
import oakbasket.server.problem.Problem;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/**
 * The deadlines of all gathering rounds as a calendar that other programs subscribe to. Its address has 160 random bits and is all that protects it, so it tells
 * titles and numbers and never a name; a new address ends the old one.
 */
@RestController
class FeedController {

    private static final int TOKEN_BYTES = 20;

    record Feed(@Nullable String url) {
    }

    private final FeedTable table;
    private final Board board;
    private final Rounds rounds;
    private final SecretKeys keys;
    private final Transactions transactions;
    private final Limits limits;
    private final Words words;
    private final Settings settings;
    private final Clock clock;

    FeedController(FeedTable table, Board board, Rounds rounds, SecretKeys keys, Transactions transactions, Limits limits, Words words, Settings settings, Clock clock) {
        this.table = table;
        this.board = board;
        this.rounds = rounds;
        this.keys = keys;
        this.transactions = transactions;
        this.limits = limits;
        this.words = words;
        this.settings = settings;
        this.clock = clock;
    }

    /** The address of the own feed; none before it was asked for. */
    @GetMapping("/api/feed")
    Feed mine(@AuthenticationPrincipal Account account, HttpServletRequest request) {
        return new Feed(table.sealed(account.id()).map(sealed -> settings.base(request) + "/calendar/" + new String(keys.open(sealed), StandardCharsets.US_ASCII) + ".ics").orElse(null));
    }

    /** Makes an address for the own feed; an older one ends. */
    @PostMapping("/api/feed")
    Feed make(@AuthenticationPrincipal Account account, HttpServletRequest request) {
        String token = Base64.getUrlEncoder().withoutPadding().encodeToString(keys.random(TOKEN_BYTES));
        transactions.durably(() -> table.set(account.id(), Hash.of(token), keys.seal(token.getBytes(StandardCharsets.US_ASCII)), clock.instant()));
        return mine(account, request);
    }

    @DeleteMapping("/api/feed")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void end(@AuthenticationPrincipal Account account) {
        transactions.durably(() -> table.delete(account.id()));
    }

    @GetMapping("/calendar/{token}.ics")
    ResponseEntity<byte[]> calendar(@PathVariable String token, HttpServletRequest request) {
        if (token.length() > 100 || !table.known(Hash.of(token))) {
            limits.count(Limits.Kind.UNKNOWN_LINK, Caller.of(request));
            throw Problem.notFound("not-found");
        }
        List<CalendarOut.Entry> entries = new ArrayList<>();
        rounds.gathering().forEach(round -> add(entries, round, settings.base(request)));
        byte[] content = CalendarOut.write(words.of("feed.name", settings.office()), entries, clock.instant()).getBytes(StandardCharsets.UTF_8);
        return ResponseEntity.ok().header("Content-Type", "text/calendar;charset=UTF-8").header("Cache-Control", "no-store").body(content);
    }

    private void add(List<CalendarOut.Entry> entries, Round round, String base) {
        Board.Judged judged = board.judge(round.id());
        String url = base + "/rounds/" + round.id();
        int owing = judged.counts().asked() - judged.counts().complete();
        entries.add(new CalendarOut.Entry("deadline-" + round.id(), round.deadline().dateOnly() ? round.deadline().date() : null, round.deadline().instant(),
                words.of("feed.deadline", round.title(), owing, judged.counts().asked()), url));
        TreeMap<LocalDate, Integer> extended = new TreeMap<>();
        judged.rows().stream().filter(row -> row.extended() && row.in(BasketList.OWES))
                .forEach(row -> extended.merge(LocalDate.ofInstant(row.deadline(), round.zone()), 1, Integer::sum));
        extended.forEach((day, count) -> entries.add(new CalendarOut.Entry("extended-" + round.id() + "-" + day, day, day.atStartOfDay(round.zone()).toInstant(),
                words.of("feed.extended", round.title(), count), url)));
        Instant closes = round.closesAt();
        if (closes != null) {
            entries.add(new CalendarOut.Entry("closing-" + round.id(), null, closes, words.of("feed.closing", round.title()), url));
        }
    }
}
