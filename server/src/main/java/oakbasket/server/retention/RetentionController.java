package oakbasket.server.retention;

import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import oakbasket.core.naming.SafeName;
import oakbasket.core.round.RoundState;
import oakbasket.core.team.Permission;
import oakbasket.server.Settings;
import oakbasket.server.account.Account;
import oakbasket.server.account.AccountService;
import oakbasket.server.basket.Baskets;
import oakbasket.server.removal.Binned;
import oakbasket.server.removal.RemovedFiles;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Round;
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
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Until when papers are kept, what is held beyond that, what was destroyed, and the bin. */
@RestController
@Needs(Permission.CHANGE)
class RetentionController {

    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm", Locale.ROOT);

    /**
     * A round with a retention date.
     *
     * @param files how many are there, those in the bin included
     * @param purged how many were destroyed
     * @param held why it is held; null when it is not
     * @param due whether its files are destroyed with the next look, or would be if it were closed and not held
     */
    record KeptRound(long roundId, String round, RoundState state, LocalDate keepUntil, int files, long bytes, int purged, @Nullable String held, @Nullable String heldBy, boolean due) {
    }

    record BinRow(long fileId, String name, String path, String round, String person, long bytes, String reason, Instant removedAt, String removedBy, Instant emptiedAt, boolean held) {
    }

    record RetentionView(List<KeptRound> rounds, List<BinRow> bin, int binDays) {
    }

    record HoldReason(@Nullable String reason) {
    }

    private final Rounds rounds;
    private final ReceivedFiles files;
    private final RemovedFiles removed;
    private final Holds holds;
    private final Baskets people;
    private final AccountService accounts;
    private final Roots roots;
    private final Words words;
    private final Settings settings;
    private final Clock clock;

    RetentionController(Rounds rounds, ReceivedFiles files, RemovedFiles removed, Holds holds, Baskets people, AccountService accounts, Roots roots, Words words,
            Settings settings, Clock clock) {
        this.rounds = rounds;
        this.files = files;
        this.removed = removed;
        this.holds = holds;
        this.people = people;
        this.accounts = accounts;
        this.roots = roots;
        this.words = words;
        this.settings = settings;
        this.clock = clock;
    }

    @GetMapping("/api/retention")
    RetentionView all() {
        Map<Long, Hold> held = holds.standing().stream().collect(Collectors.toMap(Hold::roundId, hold -> hold, (one, other) -> one));
        List<Binned> bin = removed.bin();
        Map<Long, String> names = accounts.names(Stream.concat(held.values().stream().map(Hold::heldBy), bin.stream().map(Binned::removedBy)).distinct().toList());
        Map<Long, String> titles = rounds.all().stream().collect(Collectors.toMap(Rounds.Head::id, Rounds.Head::title));
        Map<Long, String> persons = people.names(bin.stream().map(Binned::basketId).distinct().toList());
        return new RetentionView(rounds.opened(titles.keySet()).stream().filter(round -> round.keepUntil() != null).map(round -> kept(round, held.get(round.id()), names)).toList(),
                bin.stream().map(one -> new BinRow(one.fileId(), one.path().substring(one.path().lastIndexOf('/') + 1), roots.words(one.path()), titles.getOrDefault(one.roundId(), ""),
                        persons.getOrDefault(one.basketId(), ""), one.sizeBytes(), one.reason(), one.removedAt(), names.getOrDefault(one.removedBy(), ""), one.removedAt().plus(RemovedFiles.BIN_LIFE),
                        held.containsKey(one.roundId()))).toList(), (int) RemovedFiles.BIN_LIFE.toDays());
    }

    private KeptRound kept(Round round, @Nullable Hold hold, Map<Long, String> names) {
        List<ReceivedFiles.Kept> all = files.keptOf(round.id());
        List<ReceivedFiles.Kept> there = all.stream().filter(file -> file.purgedAt() == null).toList();
        LocalDate until = Objects.requireNonNull(round.keepUntil());
        return new KeptRound(round.id(), round.title(), round.state(), until, there.size(), there.stream().mapToLong(ReceivedFiles.Kept::sizeBytes).sum(), all.size() - there.size(),
                hold == null ? null : hold.reason(), hold == null ? null : names.getOrDefault(hold.heldBy(), ""), until.isBefore(LocalDate.ofInstant(clock.instant(), settings.zone())));
    }

    /** Holds a round: nothing of it is destroyed until it is released. */
    @PostMapping("/api/retention/{round}/hold")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void hold(@PathVariable long round, @RequestBody HoldReason typed, @AuthenticationPrincipal Account account) {
        rounds.opened(round);
        holds.hold(round, typed.reason() == null ? "" : typed.reason(), account.id());
    }

    @PostMapping("/api/retention/{round}/release")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void release(@PathVariable long round, @AuthenticationPrincipal Account account) {
        holds.release(round, account.id());
    }

    /** What was destroyed of a round: names and hashes, no content. */
    @GetMapping("/api/retention/{round}/record.csv")
    ResponseEntity<byte[]> record(@PathVariable long round) {
        String title = rounds.opened(round).title();
        ZoneId zone = settings.zone();
        List<List<String>> rows = files.keptOf(round).stream().filter(file -> file.purgedAt() != null).map(file -> List.of(roots.words(file.place()), file.originalName(), Long.toString(file.sizeBytes()),
                HexFormat.of().formatHex(file.sha256()), TIME.format(file.receivedAt().atZone(zone)), TIME.format(Objects.requireNonNull(file.purgedAt()).atZone(zone)))).toList();
        return TableOut.download(SafeName.of(words.of("record.name", title)), "text/csv;charset=UTF-8",
                TableOut.csv(Stream.of("place", "original", "bytes", "sha256", "received", "destroyed").map(column -> words.of("record." + column)).toList(), rows));
    }
}
