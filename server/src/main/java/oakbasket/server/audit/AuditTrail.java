package oakbasket.server.audit;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import oakbasket.core.audit.AuditChain;
import oakbasket.core.audit.AuditKey;
import oakbasket.core.audit.AuditKind;
import oakbasket.core.audit.AuditRecord;
import oakbasket.server.security.SecretKeys;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.DataFolder;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Writes the trail and answers questions about it. What somebody sees again and again or saves again and again within some minutes is written once. */
@Service
public class AuditTrail {

    static final int PAGE = 100;
    static final int MOST_OUT = 100_000;
    private static final Duration SEEN_AGAIN = Duration.ofMinutes(10);
    /** What is saved while it is typed or comes in pieces. */
    private static final Set<String> SAVED_AGAIN = Set.of("PUT /api/rounds/{id}/sheet", "PUT /api/parcels/{id}", "POST /api/parcels/{id}/files/{file}/bytes", "PROPFIND /dav", "GET /dav");
    private static final int MOST_REMEMBERED = 10_000;
    private static final int LONGEST = 300;
    private static final int LONGEST_CALLER = 60;
    private static final int LONGEST_OPERATION = 120;

    /**
     * Which entries are wanted.
     *
     * @param account 0 for everybody
     * @param kind null for all
     * @param words part of a name, an address, a subject or an operation; empty for all
     * @param to the first instant that is too late
     */
    record Wanted(long account, @Nullable AuditKind kind, String words, Instant from, Instant to) {
    }

    /**
     * Whether the trail is as it was written.
     *
     * @param wrongAt the number of the first entry that is not, or of the one that was noted outside of the database and is missing; null when all are
     * @param head the hash of the last entry, in hexadecimal digits
     */
    record AuditChecked(long entries, @Nullable Long wrongAt, String head) {
    }

    /** Somebody, as an entry names them. */
    record Somebody(long account, String name, String caller) {
    }

    private final AuditTable table;
    private final AuditHead noted;
    private final Transactions transactions;
    private final Clock clock;
    private final AuditKey key;
    private final Map<String, Instant> seen = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Instant> eldest) {
            return size() > MOST_REMEMBERED;
        }
    };
    private AuditTable.@Nullable Last last;

    AuditTrail(AuditTable table, AuditHead noted, DataFolder folder, SecretKeys keys, Transactions transactions, Clock clock) {
        this.key = AuditKeys.begun(folder.keys(), keys::sign, table.last().map(AuditTable.Last::number).orElse(0L));
        this.table = table;
        this.noted = noted;
        this.transactions = transactions;
        this.clock = clock;
    }

    /** Whether somebody did the same a short time ago, and it is of a kind that is written once. @param about what tells it from others */
    synchronized boolean again(long account, AuditKind kind, String operation, String about) {
        if (kind != AuditKind.SAW && !SAVED_AGAIN.contains(operation)) {
            return false;
        }
        Instant now = clock.instant();
        Instant before = seen.get(account + " " + operation + " " + about);
        if (before != null && before.plus(SEEN_AGAIN).isAfter(now)) {
            return true;
        }
        seen.put(account + " " + operation + " " + about, now);
        return false;
    }

    /** Writes an entry. */
    void write(Somebody who, AuditKind kind, String operation, String subject, int status) {
        Acting.asOffice(() -> {
            append(who, kind, operation, subject, status);
            return true;
        });
    }

    private synchronized void append(Somebody who, AuditKind kind, String operation, String subject, int status) {
        Instant now = clock.instant();
        AuditTable.Last end = last == null ? table.last().orElse(new AuditTable.Last(0, AuditChain.BEGINNING)) : last;
        AuditRecord entry = new AuditRecord(end.number() + 1, now, who.account(), cut(who.name(), LONGEST), cut(who.caller(), LONGEST_CALLER), kind, cut(operation, LONGEST_OPERATION), cut(subject, LONGEST), status);
        byte[] hash = key.hash(end.hash(), entry);
        // Read anew next time, should this one not be written.
        last = null;
        transactions.quickly(() -> {
            table.insert(entry, hash);
            return true;
        });
        last = new AuditTable.Last(entry.number(), hash);
    }

    private static String cut(String text, int most) {
        String plain = text.replace('\0', ' ');
        return plain.length() > most ? plain.substring(0, Character.isHighSurrogate(plain.charAt(most - 1)) ? most - 1 : most) : plain;
    }

    /** What something is called; its number where it has no name, empty where the operation is about nothing. */
    String subject(AuditSubject.Of of, @Nullable String id) {
        if (id == null || !id.matches("\\d{1,18}")) {
            return Objects.requireNonNullElse(id, "");
        }
        return Acting.asOffice(() -> Objects.requireNonNullElse(table.name(of, Long.parseLong(id)), id));
    }

    /** Entries before a number, the newest first, at most {@link #PAGE}. */
    List<AuditRecord> page(Wanted wanted, long before) {
        return table.page(wanted, before, PAGE);
    }

    /** All that are wanted, the newest first, at most {@link #MOST_OUT}. */
    List<AuditRecord> out(Wanted wanted) {
        return table.page(wanted, Long.MAX_VALUE, MOST_OUT);
    }

    /** Where the trail ends. @param hash of its last entry, in hexadecimal digits */
    public record End(long entries, String hash) {
    }

    /** Where it ends now, to be kept where nobody can change it, such as in a letter. */
    public End end() {
        return Acting.asOffice(() -> table.last().map(last -> new End(last.number(), HexFormat.of().formatHex(last.hash()))).orElse(new End(0, HexFormat.of().formatHex(AuditChain.BEGINNING))));
    }

    /** Reads the whole trail and works every hash out anew. */
    AuditChecked check() {
        AuditChain chain = new AuditChain(key);
        table.all(chain::next);
        Long wrong = chain.wrongAt();
        return new AuditChecked(chain.checked(), wrong == null ? noted.missing() : wrong, HexFormat.of().formatHex(chain.head()));
    }
}
