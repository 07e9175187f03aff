package oakbasket.server.space;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BooleanSupplier;
import oakbasket.core.quota.Room;
import oakbasket.core.quota.RoomOf;
import oakbasket.server.account.AccountService;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/**
 * Holds rounds, users and the office to the room they may take up. What lies on the disk is added up now and then; what began to come since counts from its beginning, so that many at once are no more
 * than one after another. What is begun and brings nothing stops counting after a while, so that nobody keeps others out by announcing. While nothing is set, nothing is added up.
 */
@Service
public class Spaces {

    /** How long sums are believed; what comes meanwhile is counted beside them. */
    private static final Duration BELIEVED = Duration.ofMinutes(1);
    /** How old sums may be by which somebody is refused: whoever is refused again and again has nothing added up for it. */
    private static final Duration BEFORE_REFUSING = Duration.ofSeconds(2);
    /** How long something counts of which nothing comes. */
    private static final Duration LIFE = Duration.ofMinutes(15);

    /** The room of one of them. @param name of the round or the user; empty for the office */
    public record Taken(RoomOf of, long id, String name, Room room) {
    }

    /** Something that began to come. @param counted whether the next sums know it */
    private record Begun(@Nullable Long round, long owner, long bytes, boolean running, Instant at, BooleanSupplier counted) {
    }

    private record Sums(Instant at, Map<Long, Long> rounds, Map<Long, Long> users, long office) {
    }

    private final SpaceTable table;
    private final AccountService accounts;
    private final Transactions transactions;
    private final Clock clock;
    private final Map<String, Begun> begun = new HashMap<>();
    private @Nullable Map<RoomOf, Map<Long, Long>> limits;
    private @Nullable Sums sums;

    Spaces(SpaceTable table, AccountService accounts, Transactions transactions, Clock clock) {
        this.table = table;
        this.accounts = accounts;
        this.transactions = transactions;
        this.clock = clock;
    }

    /**
     * Takes room for bytes that are about to come, or takes it anew for what goes on.
     *
     * @param round where they belong; null for what its owner hands out beside rounds
     * @param owner whose room it takes up too; null for whoever owns the round
     * @param key names it; what has the same name is one
     * @param counted whether what lies on the disk knows it already
     * @throws Problem with status 507 when the round, its owner or the office has not so much room left
     */
    public synchronized void take(@Nullable Long round, @Nullable Long owner, String key, long bytes, BooleanSupplier counted) {
        if (limits().isEmpty()) {
            return;
        }
        Instant now = clock.instant();
        long whose = owner != null ? owner : Acting.asOffice(() -> table.ownerOf(java.util.Objects.requireNonNull(round)));
        begun.remove(key);
        if (refuses(sums(now, BELIEVED), round, whose, bytes) && refuses(sums(now, BEFORE_REFUSING), round, whose, bytes)) {
            throw Problem.of(Problem.Kind.NO_ROOM, "space-full");
        }
        begun.put(key, new Begun(round, whose, bytes, true, now, counted));
    }

    /** Says that nothing comes just now of what took room. */
    public synchronized void rest(String key) {
        begun.computeIfPresent(key, (name, one) -> new Begun(one.round(), one.owner(), one.bytes(), false, clock.instant(), one.counted()));
    }

    /** Gives the room back of what will not come. */
    public synchronized void giveBack(String key) {
        begun.remove(key);
    }

    private boolean refuses(Sums lying, @Nullable Long round, long owner, long bytes) {
        Map<RoomOf, Room> rooms = new EnumMap<>(RoomOf.class);
        if (round != null) {
            put(rooms, RoomOf.ROUND, round, lying.rounds().getOrDefault(round, 0L) + coming(one -> round.equals(one.round())));
        }
        put(rooms, RoomOf.USER, owner, lying.users().getOrDefault(owner, 0L) + coming(one -> one.owner() == owner));
        put(rooms, RoomOf.OFFICE, 0, lying.office() + coming(one -> true));
        return RoomOf.refusing(rooms, bytes).isPresent();
    }

    private void put(Map<RoomOf, Room> rooms, RoomOf of, long id, long used) {
        Long most = limits().getOrDefault(of, Map.of()).get(id);
        if (most != null) {
            rooms.put(of, new Room(used, most));
        }
    }

    private long coming(java.util.function.Predicate<Begun> which) {
        return begun.values().stream().filter(which).mapToLong(Begun::bytes).sum();
    }

    private Map<RoomOf, Map<Long, Long>> limits() {
        Map<RoomOf, Map<Long, Long>> known = limits;
        if (known == null) {
            known = new EnumMap<>(RoomOf.class);
            for (SpaceTable.Limit limit : table.limits()) {
                known.computeIfAbsent(limit.roomOf(), of -> new HashMap<>()).put(limit.id(), limit.mostBytes());
            }
            limits = known;
        }
        return known;
    }

    /** What lies there, as it was at most so long ago. What came since and is counted in the new sums is not counted beside them any more. */
    private Sums sums(Instant now, Duration believed) {
        Sums known = sums;
        if (known != null && now.isBefore(known.at().plus(believed)) && !now.isBefore(known.at())) {
            return known;
        }
        // First what has arrived, then the sums: what arrives between the two is counted twice for a moment, never not at all.
        begun.values().removeIf(one -> one.counted().getAsBoolean() || !one.running() && one.at().plus(LIFE).isBefore(now));
        Sums made = Acting.asOffice(() -> added(now));
        sums = made;
        return made;
    }

    private Sums added(Instant now) {
        Map<Long, Long> rounds = new HashMap<>();
        Map<Long, Long> users = new HashMap<>();
        long office = table.loose();
        for (SpaceTable.OfRound one : table.ofRounds()) {
            rounds.put(one.id(), one.bytes());
            users.merge(one.owner(), one.bytes(), Long::sum);
            office += one.bytes();
        }
        for (SpaceTable.OfUser one : table.ofParcels()) {
            users.merge(one.id(), one.bytes(), Long::sum);
            office += one.bytes();
        }
        return new Sums(now, rounds, users, office);
    }

    /** Sets how much room something may take up; null for as much as there is. What lies there already stays. */
    synchronized void set(RoomOf of, long id, @Nullable Long mostBytes) {
        if (!table.exists(of, id)) {
            throw Problem.notFound(of == RoomOf.ROUND ? "no-round" : "not-found");
        }
        transactions.durably(() -> table.set(of, id, mostBytes));
        limits = null;
        sums = null;
    }

    /** The room that everything takes up now, the office first, then users, then rounds, each the fullest first; of rounds only those that whoever asks may see. */
    synchronized List<Taken> all() {
        Sums lying = sums(clock.instant(), Duration.ZERO);
        List<Taken> all = new ArrayList<>();
        all.add(taken(RoomOf.OFFICE, 0, "", lying.office()));
        all.addAll(accounts.members().stream().filter(member -> member.endedAt() == null || lying.users().getOrDefault(member.id(), 0L) > 0).map(member -> taken(RoomOf.USER, member.id(), member.name(), lying.users().getOrDefault(member.id(), 0L))).sorted(FULLEST).toList());
        all.addAll(table.titles().entrySet().stream().map(round -> taken(RoomOf.ROUND, round.getKey(), round.getValue(), lying.rounds().getOrDefault(round.getKey(), 0L)))
                .filter(one -> one.room().usedBytes() > 0 || one.room().mostBytes() != null).sorted(FULLEST).toList());
        return all;
    }

    /** What is so full that somebody should know: the office, whoever asks, and the rounds they may see. */
    public synchronized List<Taken> warnings(long account) {
        if (limits().isEmpty()) {
            return List.of();
        }
        Sums lying = sums(clock.instant(), BELIEVED);
        List<Taken> warned = new ArrayList<>();
        warned.add(taken(RoomOf.OFFICE, 0, "", lying.office()));
        warned.add(taken(RoomOf.USER, account, "", lying.users().getOrDefault(account, 0L)));
        Map<Long, Long> ofRounds = limits().getOrDefault(RoomOf.ROUND, Map.of());
        if (!ofRounds.isEmpty()) {
            table.titles().forEach((id, title) -> warned.add(taken(RoomOf.ROUND, id, title, lying.rounds().getOrDefault(id, 0L))));
        }
        return warned.stream().filter(one -> one.room().warns()).toList();
    }

    private static final Comparator<Taken> FULLEST = Comparator.<Taken>comparingInt(one -> -one.room().percent()).thenComparing(one -> -one.room().usedBytes()).thenComparing(Taken::id);

    private Taken taken(RoomOf of, long id, String name, long used) {
        return new Taken(of, id, name, new Room(used, limits().getOrDefault(of, Map.of()).get(id)));
    }
}
