package oakbasket.server.contactchange;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Semaphore;
import oakbasket.core.contact.ContactColumn;
import oakbasket.core.contact.ContactFields;
import oakbasket.core.contact.ImportPlan;
import oakbasket.core.fault.Remark;
import oakbasket.server.contact.ContactRecords;
import oakbasket.server.decode.Decoders;
import oakbasket.server.decode.work.CardsFile;
import oakbasket.server.decode.work.DecodeWork;
import oakbasket.server.decode.work.ImportedRows;
import oakbasket.server.decode.work.ReadCards;
import oakbasket.server.decode.work.ReadRows;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.mail.MailReach;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.SecretKeys;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;

/** Imports contacts: reads what came, says what would become of each line, and has it done on confirmation. What came waits in memory for an hour at most. */
@Service
class Importing {

    private static final Logger LOG = LoggerFactory.getLogger(Importing.class);
    private static final Duration WAITS = Duration.ofHours(1);
    private static final int MOST_WAITING = 8;
    private static final long MOST_WAITING_BYTES = 24L << 20;
    private static final int SAMPLE = 5;
    private static final int LONGEST_SAMPLE = 300;
    private static final int PAGE = 200;

    /** How far an import has come. */
    enum ImportState { READ, RUNNING, DONE, FAILED }

    /** How the columns are meant. */
    record Mapping(List<ContactColumn> columns, boolean headed, @Nullable String group) {
    }

    /**
     * What came, as read.
     *
     * @param table whether it has columns to be mapped; a file of vCards has none
     */
    record Staged(String id, boolean table, String charset, String delimiter, boolean headed, List<ContactColumn> columns, List<List<String>> sample, int rows) {
    }

    /** What would become of the lines: how many of each verdict, and a page of those of one. */
    record ImportPreview(int added, int changed, int unchanged, int refused, int odd, List<ImportPlan.Line> lines) {
    }

    /**
     * How far an import has come.
     *
     * @param act by which it can be undone; 0 before it is done
     */
    record ImportProgress(ImportState state, int done, int total, long act, Remark problem) {
    }

    private static final class Waiting {
        private final long account;
        private final Instant since;
        private final long bytes;
        private final @Nullable ImportedRows table;
        private final List<ImportPlan.Row> cards;
        private volatile @Nullable ImportPlan previewed;
        private volatile ImportProgress progress = new ImportProgress(ImportState.READ, 0, 0, 0, Remark.NONE);

        Waiting(long account, Instant since, long bytes, @Nullable ImportedRows table, List<ImportPlan.Row> cards) {
            this.account = account;
            this.since = since;
            this.bytes = bytes;
            this.table = table;
            this.cards = cards;
        }
    }

    private final Semaphore reading = new Semaphore(1);
    private final Map<String, Waiting> waiting = new ConcurrentHashMap<>();
    private final ExecutorService worker = Executors.newSingleThreadExecutor(work -> {
        Thread thread = new Thread(work, "import");
        thread.setDaemon(true);
        return thread;
    });
    private final Decoders decoders;
    private final ContactRecords records;
    private final ImportWriting writing;
    private final Transactions transactions;
    private final LiveHub live;
    private final SecretKeys keys;
    private final MailReach reach;
    private final Clock clock;

    Importing(Decoders decoders, ContactRecords records, ImportWriting writing, Transactions transactions, LiveHub live, SecretKeys keys, MailReach reach, Clock clock) {
        this.reach = reach;
        this.decoders = decoders;
        this.records = records;
        this.writing = writing;
        this.transactions = transactions;
        this.live = live;
        this.keys = keys;
        this.clock = clock;
    }

    @EventListener(ContextClosedEvent.class)
    void close() {
        worker.shutdown();
    }

    /** Reads what came and keeps it waiting. */
    Staged stage(byte[] content, String charset, String delimiter, long account) {
        waiting.values().removeIf(one -> one.since.plus(WAITS).isBefore(clock.instant()));
        reading.acquireUninterruptibly();
        try {
            return stageOne(content, charset, delimiter, account);
        } finally {
            reading.release();
        }
    }

    /** One at a time: what is read takes several times the room of the file. */
    private Staged stageOne(byte[] content, String charset, String delimiter, long account) {
        while (waiting.size() >= MOST_WAITING || waiting.size() > 0 && waiting.values().stream().mapToLong(one -> one.bytes).sum() + content.length > MOST_WAITING_BYTES) {
            int before = waiting.size();
            waiting.entrySet().stream().filter(one -> one.getValue().progress.state() != ImportState.RUNNING)
                    .min((one, other) -> one.getValue().since.compareTo(other.getValue().since)).ifPresent(eldest -> waiting.remove(eldest.getKey()));
            if (waiting.size() == before) {
                throw Problem.conflict("import-running");
            }
        }
        String id = Base64.getUrlEncoder().withoutPadding().encodeToString(keys.random(12));
        if (CardsFile.looksLike(content)) {
            List<ImportPlan.Row> cards = decoded(new ReadCards(), content).rows();
            waiting.put(id, new Waiting(account, clock.instant(), content.length, null, cards));
            return new Staged(id, false, "UTF-8", "", false, List.of(), List.of(), cards.size());
        }
        ImportedRows read = decoded(new ReadRows(charset, delimiter), content);
        waiting.put(id, new Waiting(account, clock.instant(), content.length, read, List.of()));
        return new Staged(id, true, read.charset(), String.valueOf(read.delimiter()), read.headed(), read.columns(),
                read.lines().stream().limit(SAMPLE).map(line -> line.cells().stream().map(Importing::brief).toList()).toList(), read.lines().size());
    }

    private <A> A decoded(DecodeWork<A> work, byte[] content) {
        return decoders.ask(work, content, Decoders.Lane.DESK).orElseThrow(() -> Problem.refused("import-not-a-table"));
    }

    /** Says what would become of the lines; stores nothing. */
    ImportPreview preview(String id, Mapping mapping, long account, ImportPlan.Verdict verdict, int from) {
        Waiting one = byId(id, account);
        ImportPlan plan = plan(one, mapping);
        one.previewed = plan;
        return new ImportPreview(plan.count(ImportPlan.Verdict.ADDED), plan.count(ImportPlan.Verdict.CHANGED), plan.count(ImportPlan.Verdict.UNCHANGED),
                plan.count(ImportPlan.Verdict.REFUSED), (int) plan.lines().stream().filter(line -> !line.remarks().isEmpty()).count(),
                plan.lines().stream().filter(line -> line.verdict() == verdict).skip(from).limit(PAGE).toList());
    }

    /**
     * Begins to do what the last preview said.
     *
     * @throws Problem with status 409 when contacts changed since, so that something else would become of the lines
     */
    void apply(String id, Mapping mapping, String source, long account) {
        Waiting one = byId(id, account);
        synchronized (one) {
            if (one.progress.state() != ImportState.READ) {
                throw Problem.conflict("import-running");
            }
            ImportPlan plan = plan(one, mapping);
            if (!plan.equals(one.previewed)) {
                throw Problem.conflict("import-changed");
            }
            one.progress = new ImportProgress(ImportState.RUNNING, 0, plan.lines().size(), 0, Remark.NONE);
            worker.execute(Acting.office(() -> run(one, plan, source)));
        }
    }

    ImportProgress progress(String id, long account) {
        return byId(id, account).progress;
    }

    private void run(Waiting one, ImportPlan plan, String source) {
        int total = plan.lines().size();
        try {
            long act = transactions.durably(() -> writing.write(plan, one.account, source, done -> one.progress = new ImportProgress(ImportState.RUNNING, done, total, 0, Remark.NONE)));
            one.progress = new ImportProgress(ImportState.DONE, total, total, act, Remark.NONE);
            live.publish(LiveEvent.CONTACTS);
        } catch (RuntimeException failed) {
            LOG.error("An import failed; nothing of it was kept", failed);
            one.progress = new ImportProgress(ImportState.FAILED, 0, total, 0, Remark.of("import-failed"));
        }
    }

    private ImportPlan plan(Waiting one, Mapping mapping) {
        Map<Long, ContactFields> byId = new HashMap<>();
        records.all().forEach(contact -> byId.put(contact.id(), contact.fields()));
        Map<String, ContactFields> known = new HashMap<>();
        records.keys().forEach((key, id) -> {
            if (byId.containsKey(id)) {
                known.put(key, byId.get(id));
            }
        });
        return ImportPlan.of(rows(one, mapping), known, reach::carried);
    }

    private static List<ImportPlan.Row> rows(Waiting one, Mapping mapping) {
        ImportedRows read = one.table;
        List<ImportPlan.Row> rows = new ArrayList<>(one.cards);
        if (read != null) {
            if (!mapping.columns().contains(ContactColumn.EMAIL)) {
                throw Problem.field("columns", "address-column");
            }
            read.lines().stream().skip(mapping.headed() ? 1 : 0)
                    .forEach(line -> rows.add(new ImportPlan.Row(line.number(), ContactColumn.read(mapping.columns(), line.cells()))));
        }
        String group = mapping.group() == null ? "" : mapping.group().strip();
        return group.isEmpty() ? rows : rows.stream().map(row -> new ImportPlan.Row(row.number(), grouped(row.fields(), group))).toList();
    }

    private static ContactFields grouped(ContactFields fields, String group) {
        List<String> all = new ArrayList<>(fields.groups());
        all.add(group);
        return new ContactFields(fields.name(), fields.email(), fields.organisation(), fields.reference(), fields.language(), fields.zone(), fields.notes(), all);
    }

    private static String brief(String cell) {
        return cell.length() <= LONGEST_SAMPLE ? cell : cell.substring(0, LONGEST_SAMPLE) + "…";
    }

    private Waiting byId(String id, long account) {
        Waiting one = waiting.get(id);
        if (one == null || one.account != account) {
            throw Problem.notFound("no-import");
        }
        return one;
    }
}
