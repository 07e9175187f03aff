package oakbasket.server.takeaway;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import oakbasket.core.standing.BasketList;
import oakbasket.server.board.Board;
import oakbasket.server.brand.Brand;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.security.Hash;
import oakbasket.server.security.Limits;
import oakbasket.server.security.SecretKeys;
import oakbasket.server.sharing.Sharing;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Transactions;
import oakbasket.server.words.Words;
import org.springframework.stereotype.Service;

/**
 * The deadlines of all gathering rounds as a calendar that other programs subscribe to. Its address has 160 random bits and is all that protects it, so it tells
 * titles and numbers and never a name; a new address ends the old one.
 */
@Service
class Feeds {

    private static final int TOKEN_BYTES = 20;
    private static final int LONGEST_TOKEN = 100;

    private final FeedTable table;
    private final Board board;
    private final Rounds rounds;
    private final SecretKeys keys;
    private final Transactions transactions;
    private final Limits limits;
    private final Words words;
    private final Brand brand;
    private final Sharing sharing;
    private final Clock clock;

    Feeds(FeedTable table, Board board, Rounds rounds, SecretKeys keys, Transactions transactions, Limits limits, Words words, Sharing sharing, Clock clock, Brand brand) {
        this.brand = brand;
        this.table = table;
        this.board = board;
        this.rounds = rounds;
        this.keys = keys;
        this.transactions = transactions;
        this.limits = limits;
        this.words = words;
        this.sharing = sharing;
        this.clock = clock;
    }

    /** The token in the address of an account's feed; none before it was asked for. */
    Optional<String> token(long account) {
        return table.sealed(account).map(sealed -> new String(keys.open(sealed), StandardCharsets.US_ASCII));
    }

    /** Makes an address for an account's feed; an older one ends. */
    void make(long account) {
        String token = Base64.getUrlEncoder().withoutPadding().encodeToString(keys.random(TOKEN_BYTES));
        transactions.own(() -> table.set(account, Hash.of(token), keys.seal(token.getBytes(StandardCharsets.US_ASCII)), clock.instant()));
    }

    void end(long account) {
        transactions.own(() -> table.delete(account));
    }

    /**
     * The calendar behind a token.
     *
     * @param caller see {@link oakbasket.server.web.Caller}
     * @param base what links into the desk begin with
     * @throws Problem with status 404 when there is no such feed
     */
    String calendar(String token, String caller, String base) {
        Optional<Long> account = token.length() > LONGEST_TOKEN ? Optional.empty() : table.account(Hash.of(token));
        if (account.isEmpty()) {
            limits.count(Limits.Kind.UNKNOWN_LINK, caller);
            throw Problem.notFound("not-found");
        }
        List<CalendarOut.Entry> entries = new ArrayList<>();
        Acting.as(sharing.acting(account.get()), () -> {
            Set<Long> composed = rounds.composed().stream().map(Rounds.Head::id).collect(Collectors.toSet());
            rounds.gathering().stream().filter(round -> composed.contains(round.id())).forEach(round -> add(entries, round, base));
            return entries;
        });
        return CalendarOut.write(words.of("feed.name", brand.name()), entries, clock.instant());
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
