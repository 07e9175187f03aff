package oakbasket.server.today;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import oakbasket.core.identity.Identity;
import oakbasket.core.quota.RoomOf;
import oakbasket.core.round.RoundState;
import oakbasket.core.standing.BasketList;
import oakbasket.server.Settings;
import oakbasket.server.account.Account;
import oakbasket.server.account.AccountService;
import oakbasket.server.basket.Baskets;
import oakbasket.server.basket.Submission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.board.Board;
import oakbasket.server.filing.Deliveries;
import oakbasket.server.findings.Findings;
import oakbasket.server.held.HeldFiles;
import oakbasket.server.link.LinkList;
import oakbasket.server.loose.LooseFiles;
import oakbasket.server.parcel.ParcelFiles;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.space.Spaces;
import oakbasket.server.storage.Known;
import oakbasket.server.storage.Roots;
import oakbasket.server.upload.RefusedUploads;
import org.springframework.stereotype.Service;

/** Today across all gathering rounds: what is just in, what needs somebody, what is coming up. */
@Service
class TodayOverview {

    /** One person's recent files in one round; the identity is that of the least sure sending among them. */
    record JustIn(long roundId, String round, long basketId, String person, Identity identity, int files, List<String> names, Instant last, boolean unseen) {
    }

    /** Something a coordinator should do; {@code what} is {@code check}, {@code claimed}, {@code overdue}, {@code hand-over}, {@code walk-in}, {@code link-ends}, {@code link-full}, {@code no-room}, {@code malware}, {@code unchecked}, {@code tray}, {@code root-away}, {@code waiting}, {@code not-told}, {@code prepared}, {@code gone-or-altered}, {@code parcel-lost}, {@code changed-by-hand}, {@code retention-soon} or {@code retention}. */
    record NeedsYou(String what, long roundId, String round, int count, List<String> people) {
    }

    /** What falls on one day. */
    record Deadline(long roundId, String round, int owing, int asked, boolean extension, Instant at, String zone) {
    }

    record Day(LocalDate date, List<Deadline> deadlines) {
    }

    record Today(LocalDate date, List<JustIn> justIn, int unseen, List<NeedsYou> needsYou, List<Day> comingUp, boolean anyRound) {
    }

    private static final Duration RECENT = Duration.ofDays(3);
    private static final int MOST_RECENT_FILES = 500;
    private static final int MOST_NAMES = 3;
    private static final int DAYS = 14;

    private final Board board;
    private final Rounds rounds;
    private final Baskets baskets;
    private final ReceivedFiles files;
    private final Submissions submissions;
    private final LinkList links;
    private final RefusedUploads refusals;
    private final Spaces spaces;
    private final HeldFiles held;
    private final Roots roots;
    private final LooseFiles loose;
    private final Deliveries deliveries;
    private final Findings findings;
    private final ParcelFiles parcels;
    private final AccountService accounts;
    private final Settings settings;
    private final Clock clock;

    TodayOverview(Board board, Rounds rounds, Baskets baskets, ReceivedFiles files, Submissions submissions, LinkList links, RefusedUploads refusals, Spaces spaces, HeldFiles held, Roots roots, LooseFiles loose, Deliveries deliveries, Findings findings, ParcelFiles parcels, AccountService accounts, Settings settings, Clock clock) {
        this.board = board;
        this.rounds = rounds;
        this.baskets = baskets;
        this.files = files;
        this.submissions = submissions;
        this.links = links;
        this.refusals = refusals;
        this.spaces = spaces;
        this.held = held;
        this.roots = roots;
        this.loose = loose;
        this.deliveries = deliveries;
        this.findings = findings;
        this.parcels = parcels;
        this.accounts = accounts;
        this.settings = settings;
        this.clock = clock;
    }

    /** How things stand now for this account. */
    Today of(Account signedIn) {
        Instant now = clock.instant();
        ZoneId zone = settings.zone();
        Instant lastLook = accounts.current(signedIn.id()).lastLook();
        List<Board.Judged> gathering = board.judge(rounds.gathering());
        List<Rounds.Head> all = rounds.all();
        List<JustIn> justIn = justIn(all, lastLook, now);
        LocalDate today = LocalDate.ofInstant(now, zone);
        return new Today(today, justIn, justIn.stream().filter(JustIn::unseen).mapToInt(JustIn::files).sum(),
                needsYou(all, gathering, today, signedIn.id()), comingUp(gathering, today, zone), !all.isEmpty());
    }

    private List<JustIn> justIn(List<Rounds.Head> all, Instant lastLook, Instant now) {
        Instant recent = now.minus(RECENT);
        Map<Long, List<ReceivedFile>> byBasket = new LinkedHashMap<>();
        files.since(lastLook.isBefore(recent) ? lastLook : recent, MOST_RECENT_FILES)
                .forEach(file -> byBasket.computeIfAbsent(file.basketId(), id -> new ArrayList<>()).add(file));
        Map<Long, String> people = baskets.names(byBasket.keySet());
        Map<Long, Identity> sendings = submissions.byIds(byBasket.values().stream().flatMap(List::stream).map(ReceivedFile::submissionId).distinct().toList()).stream()
                .collect(Collectors.toMap(Submission::id, Submission::identity));
        Map<Long, String> titles = new LinkedHashMap<>();
        all.forEach(head -> titles.put(head.id(), head.title()));
        return byBasket.entrySet().stream().map(entry -> {
            List<ReceivedFile> arrived = entry.getValue();
            ReceivedFile newest = arrived.get(0);
            return new JustIn(newest.roundId(), Known.in(titles, newest.roundId()), entry.getKey(),
                    people.getOrDefault(entry.getKey(), ""), weakest(arrived, sendings), arrived.size(),
                    arrived.stream().limit(MOST_NAMES).map(ReceivedFile::storedName).toList(), newest.receivedAt(), newest.receivedAt().isAfter(lastLook));
        }).toList();
    }

    private static Identity weakest(List<ReceivedFile> arrived, Map<Long, Identity> sendings) {
        return arrived.stream().map(file -> Known.in(sendings, file.submissionId())).max(Comparator.naturalOrder()).orElseThrow();
    }

    private List<NeedsYou> needsYou(List<Rounds.Head> all, List<Board.Judged> gathering, LocalDate today, long account) {
        List<NeedsYou> needs = new ArrayList<>();
        held.perRound().forEach(lying -> needs.add(new NeedsYou(lying.waits() ? "unchecked" : "malware", lying.roundId(), lying.round(), lying.files(), List.of())));
        roots.all().stream().filter(root -> !roots.isThere(root.id())).forEach(root -> needs.add(new NeedsYou("root-away", 0, root.name(), 1, List.of())));
        add(needs, "tray", files.inTray(MOST_RECENT_FILES).size() + loose.waiting());
        add(needs, "waiting", deliveries.waiting());
        add(needs, "not-told", deliveries.notTold());
        all.stream().filter(head -> head.state() == RoundState.DRAFT && head.seriesId() != null)
                .forEach(head -> needs.add(new NeedsYou("prepared", head.id(), head.title(), 1, List.of())));
        gathering.forEach(judged -> needs.addAll(needsYou(judged)));
        refusals.since(clock.instant().minus(RECENT)).forEach(refused -> needs.add(new NeedsYou(refused.noRoom() ? "no-room" : "link-full", refused.roundId(), refused.round(),
                refused.links(), List.of())));
        spaces.warnings(account).forEach(one -> needs.add(new NeedsYou("space-" + one.of().name().toLowerCase(Locale.ROOT), one.of() == RoomOf.ROUND ? one.id() : 0, one.name(), one.room().percent(), List.of())));
        links.ending(MOST_NAMES).forEach(ending -> needs.add(new NeedsYou("link-ends", ending.roundId(), ending.round(), ending.links(), ending.people())));
        retention(needs, today);
        add(needs, "gone-or-altered", findings.goneOrAltered());
        add(needs, "parcel-lost", parcels.notGivenOut());
        add(needs, "changed-by-hand", findings.unknown());
        return needs;
    }

    private static List<NeedsYou> needsYou(Board.Judged judged) {
        List<NeedsYou> needs = new ArrayList<>();
        add(needs, "check", judged, in(judged, BasketList.TO_CHECK), judged.counts().toCheck());
        add(needs, "claimed", judged, in(judged, BasketList.CLAIMED), judged.counts().claimed());
        add(needs, "overdue", judged, in(judged, BasketList.OVERDUE), -1);
        add(needs, "hand-over", judged, in(judged, BasketList.HAND_OVER), -1);
        add(needs, "walk-in", judged, in(judged, BasketList.WALK_INS).stream().filter(Board.Row::provisional).toList(), -1);
        return needs;
    }

    /** Files are warned about a fortnight before they are destroyed; those of a round that still gathers stay, and somebody should know. */
    private void retention(List<NeedsYou> needs, LocalDate today) {
        for (Round round : rounds.keptUntilBefore(today.plusDays(DAYS))) {
            boolean passed = Objects.requireNonNull(round.keepUntil()).isBefore(today);
            int there = (int) files.keptOf(round.id()).stream().filter(file -> file.purgedAt() == null).count();
            if (there > 0) {
                needs.add(new NeedsYou(passed ? "retention" : "retention-soon", round.id(), round.title(), there, List.of()));
            }
        }
    }

    private static void add(List<NeedsYou> needs, String what, int count) {
        if (count > 0) {
            needs.add(new NeedsYou(what, 0, "", count, List.of()));
        }
    }

    private static List<Board.Row> in(Board.Judged judged, BasketList list) {
        return judged.rows().stream().filter(row -> row.in(list)).toList();
    }

    private static void add(List<NeedsYou> needs, String what, Board.Judged judged, List<Board.Row> rows, int count) {
        if (!rows.isEmpty()) {
            needs.add(new NeedsYou(what, judged.round().id(), judged.round().title(), count < 0 ? rows.size() : count,
                    rows.stream().limit(MOST_NAMES).map(Board.Row::name).toList()));
        }
    }

    private static List<Day> comingUp(List<Board.Judged> gathering, LocalDate today, ZoneId zone) {
        Map<LocalDate, List<Deadline>> days = new LinkedHashMap<>();
        today.datesUntil(today.plusDays(DAYS)).forEach(date -> days.put(date, new ArrayList<>()));
        for (Board.Judged judged : gathering) {
            Map<Instant, List<Board.Row>> byDeadline = new LinkedHashMap<>();
            in(judged, BasketList.ASKED).stream()
                    .forEach(row -> byDeadline.computeIfAbsent(row.deadline(), at -> new ArrayList<>()).add(row));
            byDeadline.putIfAbsent(judged.round().deadline().instant(), List.of());
            byDeadline.forEach((at, rows) -> {
                List<Deadline> day = days.get(LocalDate.ofInstant(at, zone));
                boolean extension = !at.equals(judged.round().deadline().instant());
                int owing = (int) rows.stream().filter(row -> row.in(BasketList.OWES)).count();
                if (day != null && (owing > 0 || !extension)) {
                    day.add(new Deadline(judged.round().id(), judged.round().title(), owing, rows.size(), extension, at, judged.round().zone().getId()));
                }
            });
        }
        return days.entrySet().stream().map(day -> new Day(day.getKey(), day.getValue().stream().sorted(Comparator.comparing(Deadline::at)).toList())).toList();
    }
}
