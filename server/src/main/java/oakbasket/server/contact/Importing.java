package oakbasket.server.contact;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Semaphore;
import oakbasket.core.contact.ContactColumn;
import oakbasket.core.contact.ContactFields;
import oakbasket.core.contact.ImportPlan;
import oakbasket.core.fault.Remark;
import oakbasket.core.identity.MailAddress;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.storage.SecretKeys;
import oakbasket.server.storage.Transactions;
import oakbasket.server.problem.Problem;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.annotation.Lazy;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;

/** Imports contacts: reads what came, says what would become of each line, does it on confirmation, and undoes it. What came waits in memory for an hour at most. */
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

    /** A contact that an import changed. */
    record Changed(long id, int versionAfter, ContactFields before, boolean provisional) {
    }

    /** A contact that an import made. */
    record Added(long id, int version) {
    }

    /** What it takes to undo an import. */
    record Journal(List<Added> added, List<Changed> changed, @Nullable List<String> groups) {
    }

    private static final class Waiting {
        private final long account;
        private final Instant since;
        private final long bytes;
        private final @Nullable ImportedTable table;
        private final List<ImportPlan.Row> cards;
        private volatile @Nullable ImportPlan previewed;
        private volatile ImportProgress progress = new ImportProgress(ImportState.READ, 0, 0, 0, Remark.NONE);

        Waiting(long account, Instant since, long bytes, @Nullable ImportedTable table, List<ImportPlan.Row> cards) {
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
    private final ContactTable table;
    private final Contacts contacts;
    private final GroupTable groups;
    private final ContactActTable acts;
    private final ContactBaskets baskets;
    private final Transactions transactions;
    private final LiveHub live;
    private final SecretKeys keys;
    private final Words words;
    private final JsonMapper json;
    private final Clock clock;

    Importing(ContactTable table, Contacts contacts, GroupTable groups, ContactActTable acts, @Lazy ContactBaskets baskets, Transactions transactions, LiveHub live, SecretKeys keys,
            Words words, JsonMapper json, Clock clock) {
        this.table = table;
        this.contacts = contacts;
        this.groups = groups;
        this.acts = acts;
        this.baskets = baskets;
        this.transactions = transactions;
        this.live = live;
        this.keys = keys;
        this.words = words;
        this.json = json;
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
        if (VcardFile.looksLike(content)) {
            List<ImportPlan.Row> cards = VcardFile.read(content);
            waiting.put(id, new Waiting(account, clock.instant(), content.length, null, cards));
            return new Staged(id, false, "UTF-8", "", false, List.of(), List.of(), cards.size());
        }
        ImportedTable read = ImportedTable.read(content, charset, delimiter);
        waiting.put(id, new Waiting(account, clock.instant(), content.length, read, List.of()));
        return new Staged(id, true, read.charset(), String.valueOf(read.delimiter()), read.headed(), read.columns(),
                read.lines().stream().limit(SAMPLE).map(line -> line.cells().stream().map(Importing::brief).toList()).toList(), read.lines().size());
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
            worker.execute(() -> run(one, plan, source));
        }
    }

    ImportProgress progress(String id, long account) {
        return byId(id, account).progress;
    }

    /** Undoes an import. Runs in the caller's transaction. */
    int undo(long actId) {
        Journal journal = json.readValue(acts.detail(actId), Journal.class);
        int kept = 0;
        List<String> made = journal.groups() == null ? List.of() : journal.groups();
        for (Added added : journal.added()) {
            kept += !baskets.any(added.id()) && table.delete(added.id(), added.version()) == 1 ? 0 : 1;
        }
        for (Changed changed : journal.changed()) {
            ContactFields before = changed.before();
            if (table.update(changed.id(), changed.versionAfter(), before, MailAddress.parse(before.email()).key(), changed.provisional()) == 1) {
                contacts.byId(changed.id()).groups().stream().filter(group -> !before.groups().contains(group)).forEach(group -> groups.leave(group, changed.id()));
            } else {
                kept++;
            }
        }
        made.forEach(groups::delete);
        return kept;
    }

    private void run(Waiting one, ImportPlan plan, String source) {
        int total = plan.lines().size();
        try {
            long act = transactions.durably(() -> write(one, plan, source));
            one.progress = new ImportProgress(ImportState.DONE, total, total, act, Remark.NONE);
            live.publish(LiveEvent.CONTACTS);
        } catch (RuntimeException failed) {
            LOG.error("An import failed; nothing of it was kept", failed);
            one.progress = new ImportProgress(ImportState.FAILED, 0, total, 0, Remark.of("import-failed"));
        }
    }

    private long write(Waiting one, ImportPlan plan, String source) {
        Map<String, Long> ids = table.keys();
        Set<String> groupsBefore = groups.names();
        Map<Long, Added> added = new java.util.LinkedHashMap<>();
        Map<Long, Changed> changed = new java.util.LinkedHashMap<>();
        int done = 0;
        for (ImportPlan.Line line : plan.lines()) {
            ContactFields result = line.result();
            if (result != null && line.verdict() == ImportPlan.Verdict.ADDED && ids.containsKey(line.key())) {
                // Somebody who was discarded comes back.
                long id = ids.get(line.key());
                table.discard(id, null);
                Contact before = contacts.byId(id);
                table.update(id, before.version(), result, line.key(), false);
                result.groups().forEach(group -> contacts.join(group, id));
                changed.put(id, new Changed(id, before.version() + 1, before.fields(), before.provisional()));
            } else if (result != null && line.verdict() == ImportPlan.Verdict.ADDED) {
                long id = table.insert(result, line.key(), false, clock.instant());
                ids.put(line.key(), id);
                result.groups().forEach(group -> contacts.join(group, id));
                added.put(id, new Added(id, 1));
            } else if (result != null && line.verdict() == ImportPlan.Verdict.CHANGED) {
                long id = ids.get(line.key());
                Contact before = contacts.byId(id);
                table.update(id, before.version(), result, MailAddress.parse(result.email()).key(), false);
                result.groups().forEach(group -> contacts.join(group, id));
                if (added.computeIfPresent(id, (key, was) -> new Added(id, before.version() + 1)) == null) {
                    Changed first = changed.get(id);
                    changed.put(id, new Changed(id, before.version() + 1, first == null ? before.fields() : first.before(), first == null ? before.provisional() : first.provisional()));
                }
            }
            if (++done % 100 == 0) {
                one.progress = new ImportProgress(ImportState.RUNNING, done, plan.lines().size(), 0, Remark.NONE);
            }
        }
        List<String> made = groups.names().stream().filter(name -> !groupsBefore.contains(name)).toList();
        String summary = words.of("contact-act.import", source, added.size(), changed.size());
        return acts.insert("import", one.account, clock.instant(), summary, json.writeValueAsString(new Journal(List.copyOf(added.values()), List.copyOf(changed.values()), made)));
    }

    private ImportPlan plan(Waiting one, Mapping mapping) {
        Map<Long, ContactFields> byId = new HashMap<>();
        table.all().forEach(contact -> byId.put(contact.id(), contact.fields()));
        Map<String, ContactFields> known = new HashMap<>();
        table.keys().forEach((key, id) -> {
            if (byId.containsKey(id)) {
                known.put(key, byId.get(id));
            }
        });
        return ImportPlan.of(rows(one, mapping), known);
    }

    private static List<ImportPlan.Row> rows(Waiting one, Mapping mapping) {
        ImportedTable read = one.table;
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
