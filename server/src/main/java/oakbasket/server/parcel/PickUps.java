package oakbasket.server.parcel;

import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import oakbasket.core.parcel.PickUpRule;
import oakbasket.core.parcel.Taken;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;

/** Counts what is taken away, by person and file. */
@Service
public class PickUps {

    /**
     * A file that somebody asks for.
     *
     * @param from the first of its bytes that is asked for
     */
    public record Asked(ParcelFile file, long from) {
    }

    /** How often a file was taken away whole through a link. @param begun how often it broke off and was not gone on with */
    public record Times(long linkId, long fileId, int times, int begun, @Nullable Instant lastAt) {
    }

    /** A file that was taken away whole. */
    public record Took(long linkId, long fileId, String caller, Instant at) {
    }

    /** Bytes of a file that left. */
    private record Left(long fileId, long from, long to) {
    }

    private static final int KEEP_EVERY = 200;

    private final PickUpTable table;
    private final Transactions transactions;
    private final LiveHub live;
    private final ApplicationEventPublisher events;
    private final Clock clock;
    /** Deciding and noting go together for one link; a stripe of locks keeps that from growing. */
    private final Object[] locks = Stream.generate(Object::new).limit(64).toArray();

    PickUps(PickUpTable table, Transactions transactions, LiveHub live, ApplicationEventPublisher events, Clock clock) {
        this.events = events;
        this.table = table;
        this.transactions = transactions;
        this.live = live;
        this.clock = clock;
    }

    /**
     * Files that somebody is taking away now. What left is noted now and then and at the end; noting it never keeps anybody from having it.
     */
    public final class Run implements AutoCloseable {
        private final long link;
        private final String caller;
        private final Map<Long, Asked> asked = new HashMap<>();
        private final Map<Long, Long> known = new HashMap<>();
        private final List<Left> left = new ArrayList<>();

        private Run(long link, String caller, List<Asked> files) {
            this.link = link;
            this.caller = caller;
            files.forEach(one -> asked.put(one.file().id(), one));
        }

        /** Bytes of a file left. */
        public void left(long file, long from, long to) {
            if (to > from) {
                left.add(new Left(file, from, to));
            }
            if (left.size() >= KEEP_EVERY) {
                keep();
            }
        }

        private void keep() {
            List<Long> whole = note(this);
            left.clear();
            if (!whole.isEmpty()) {
                live.publish(LiveEvent.TAKEN);
                events.publishEvent(new TakenOutside(link, whole, caller));
            }
        }

        @Override
        public void close() {
            if (!left.isEmpty()) {
                keep();
            }
        }
    }

    /**
     * Lets somebody take files away.
     *
     * @param most how often each person may take each file away; null where that is not limited
     * @throws Problem with status 410 naming the first file that was taken away as often as is allowed; then none is
     */
    public Run begin(ParcelLink link, @Nullable Integer most, List<Asked> files, String caller) {
        Run run = new Run(link.id(), caller, files);
        if (most == null) {
            return run;
        }
        Instant now = clock.instant();
        // Counted before a byte leaves, so that ten at once are no more than one after another.
        synchronized (lock(link.id())) {
            transactions.durably(() -> {
                Map<Long, List<PickUpRule.Before>> before = all(link.id(), files);
                for (Asked one : files) {
                    long file = one.file().id();
                    PickUpRule.Decision decision = PickUpRule.decide(before.getOrDefault(file, List.of()), one.from(), one.file().sizeBytes(), caller, most, now);
                    if (decision instanceof PickUpRule.UsedUp) {
                        throw Problem.of(Problem.Kind.GONE, "parcel-taken", one.file().fileName(), most);
                    }
                    run.known.put(file, decision instanceof PickUpRule.GoesOn goesOn ? goesOn.id() : table.insert(link.id(), file, caller, now));
                }
            });
        }
        return run;
    }

    /** All that was taken before, for it has to be counted. */
    private Map<Long, List<PickUpRule.Before>> all(long link, Collection<Asked> files) {
        return byFile(files.size() == 1 ? table.ofFile(link, files.iterator().next().file().id()) : table.ofLink(link));
    }

    /** What {@link PickUpRule} may go on with where nothing is limited: through a link that thousands use, what all of them took is not read each time. */
    private Map<Long, List<PickUpRule.Before>> recent(Run run, Collection<Asked> files, Instant now) {
        Instant since = now.minus(PickUpRule.GOES_ON);
        List<PickUpTable.Row> rows = new ArrayList<>(files.size() == 1 ? table.own(run.link, files.iterator().next().file().id(), run.caller, since) : table.own(run.link, run.caller, since));
        files.stream().filter(one -> one.from() > 0).forEach(one -> rows.addAll(table.unfinishedOfOthers(run.link, one.file().id(), run.caller, since)));
        return byFile(rows);
    }

    private static Map<Long, List<PickUpRule.Before>> byFile(List<PickUpTable.Row> rows) {
        return rows.stream().collect(Collectors.groupingBy(PickUpTable.Row::fileId, LinkedHashMap::new, Collectors.mapping(PickUpTable.Row::before, Collectors.toList())));
    }

    /** Notes what left. @return the files that became whole by it */
    private List<Long> note(Run run) {
        Instant now = clock.instant();
        synchronized (lock(run.link)) {
            return transactions.quickly(() -> {
                Map<Long, List<PickUpRule.Before>> before = run.known.keySet().containsAll(run.left.stream().map(Left::fileId).toList()) ? Map.of()
                        : recent(run, run.left.stream().map(Left::fileId).distinct().map(run.asked::get).toList(), now);
                List<Long> whole = new ArrayList<>();
                for (Left one : run.left) {
                    Asked asked = java.util.Objects.requireNonNull(run.asked.get(one.fileId()));
                    long id = run.known.computeIfAbsent(one.fileId(), file -> PickUpRule.decide(before.getOrDefault(file, List.of()), asked.from(), asked.file().sizeBytes(), run.caller, null, now) instanceof PickUpRule.GoesOn goesOn
                            ? goesOn.id() : table.insert(run.link, file, run.caller, now));
                    Taken taken = Taken.read(table.taken(id)).askedFrom(one.from()).with(one.from(), one.to());
                    if (table.update(id, taken.written(), now, taken.whole(asked.file().sizeBytes()))) {
                        whole.add(one.fileId());
                    }
                }
                return whole;
            });
        }
    }

    private Object lock(long link) {
        return locks[Math.floorMod(Long.hashCode(link), locks.length)];
    }

    /** How often each file was taken away through each of these links; those never taken are left out. */
    public List<Times> times(Collection<Long> links) {
        return table.tallies(links).stream().map(one -> new Times(one.linkId(), one.fileId(), one.times(), one.begun(), one.lastAt())).toList();
    }

    /** The last files taken away through some links, the newest first. */
    List<Took> last(Collection<Long> links, int most) {
        return table.lastOf(links, most).stream().map(one -> new Took(one.linkId(), one.fileId(), one.caller(), one.wholeAt())).toList();
    }

    /** Files of somebody's parcels that were taken away after a moment and up to another, the earliest first. */
    List<Took> between(long account, Instant after, Instant upTo, int most) {
        return table.took(account, after, upTo, most).stream().map(one -> new Took(one.linkId(), one.fileId(), one.caller(), one.wholeAt())).toList();
    }
}
