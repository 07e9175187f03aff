package oakbasket.core.audit;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import org.junit.jupiter.api.Test;

class AuditChainTest {

    private record Noted(AuditRecord entry, byte[] hash) {
    }

    private static AuditRecord entry(long number) {
        return new AuditRecord(number, Instant.parse("2026-06-01T09:00:00Z").plusNanos(number), 7, "Ada", "192.0.2.1", AuditKind.CHANGED, "POST /api/rounds", "One", 201);
    }

    /** Signs from the fourth entry on; what stands for a signature here is enough to tell who has the key. */
    private static final AuditKey KEY = key(4, 90);
    private static final AuditKey UNSIGNED = key(Long.MAX_VALUE, 0);

    private static AuditKey key(long from, int secret) {
        return new AuditKey(from, hash -> {
            byte[] signed = hash.clone();
            signed[0] ^= (byte) secret;
            return signed;
        });
    }

    private static List<Noted> chain(int entries) {
        return chain(entries, UNSIGNED);
    }

    private static List<Noted> chain(int entries, AuditKey key) {
        List<Noted> chain = new ArrayList<>();
        byte[] before = AuditChain.BEGINNING;
        for (int n = 1; n <= entries; n++) {
            byte[] hash = key.hash(before, entry(n));
            chain.add(new Noted(entry(n), hash));
            before = hash;
        }
        return chain;
    }

    private static AuditChain check(List<Noted> entries) {
        return check(entries, UNSIGNED);
    }

    private static AuditChain check(List<Noted> entries, AuditKey key) {
        AuditChain chain = new AuditChain(key);
        entries.forEach(one -> chain.next(one.entry(), one.hash()));
        return chain;
    }

    @Test
    void whatWasNotTouchedIsWhole() {
        AuditChain whole = check(chain(20));
        assertThat(whole.wrongAt()).isNull();
        assertThat(whole.checked()).isEqualTo(20);
        assertThat(whole.head()).isEqualTo(chain(20).get(19).hash());
        assertThat(check(List.of()).head()).isEqualTo(AuditChain.BEGINNING);
    }

    /** Each part of an entry changed alone is found at that entry, also when its own hash is made to fit. */
    @Test
    void everyChangeOfAnythingIsFound() {
        AuditRecord one = entry(5);
        List<UnaryOperator<AuditRecord>> changes = List.of(e -> new AuditRecord(e.number(), e.at().plusNanos(1), e.account(), e.who(), e.caller(), e.kind(), e.operation(), e.subject(), e.status()),
                e -> new AuditRecord(e.number(), e.at(), 8, e.who(), e.caller(), e.kind(), e.operation(), e.subject(), e.status()),
                e -> new AuditRecord(e.number(), e.at(), e.account(), "Ad", "a" + e.caller(), e.kind(), e.operation(), e.subject(), e.status()),
                e -> new AuditRecord(e.number(), e.at(), e.account(), e.who(), e.caller(), AuditKind.SAW, e.operation(), e.subject(), e.status()),
                e -> new AuditRecord(e.number(), e.at(), e.account(), e.who(), e.caller(), e.kind(), e.operation() + "/", e.subject(), e.status()),
                e -> new AuditRecord(e.number(), e.at(), e.account(), e.who(), e.caller(), e.kind(), e.operation(), "", e.status()),
                e -> new AuditRecord(e.number(), e.at(), e.account(), e.who(), e.caller(), e.kind(), e.operation(), e.subject(), 200));
        for (UnaryOperator<AuditRecord> change : changes) {
            List<Noted> kept = chain(9);
            kept.set(4, new Noted(change.apply(one), kept.get(4).hash()));
            assertThat(check(kept).wrongAt()).isEqualTo(5);
            List<Noted> fitted = chain(9);
            AuditRecord other = change.apply(one);
            fitted.set(4, new Noted(other, AuditChain.hash(fitted.get(3).hash(), other)));
            assertThat(check(fitted).wrongAt()).as("the next one shows it").isEqualTo(6);
        }
    }

    /** Whoever has no key can make nothing that fits, neither at the end nor, written anew altogether, from the beginning. */
    @Test
    void whoHasNoKeyMakesNoEntryThatFits() {
        assertThat(check(chain(9, KEY), KEY).wrongAt()).isNull();
        List<Noted> added = chain(9, KEY);
        added.add(new Noted(entry(10), AuditChain.hash(added.get(8).hash(), entry(10))));
        assertThat(check(added, KEY).wrongAt()).as("added").isEqualTo(10);
        assertThat(check(chain(9), KEY).wrongAt()).as("written anew without a key").isEqualTo(4);
        assertThat(check(chain(9, key(4, 91)), KEY).wrongAt()).as("and with another one").isEqualTo(4);
        List<Noted> early = chain(9, KEY);
        AuditRecord other = new AuditRecord(3, early.get(2).entry().at(), 7, "Bea", "192.0.2.1", AuditKind.CHANGED, "POST /api/rounds", "One", 201);
        early.set(2, new Noted(other, AuditChain.hash(early.get(1).hash(), other)));
        assertThat(check(early, KEY).wrongAt()).as("what stood before anything was signed, by the first that is").isEqualTo(4);
    }

    @Test
    void whatIsLeftOutPutInOrPutElsewhereIsFound() {
        List<Noted> gap = chain(9);
        gap.remove(3);
        assertThat(check(gap).wrongAt()).isEqualTo(4);
        List<Noted> twice = chain(9);
        twice.add(3, twice.get(3));
        assertThat(check(twice).wrongAt()).isEqualTo(5);
        List<Noted> swapped = chain(9);
        swapped.set(2, swapped.set(6, swapped.get(2)));
        assertThat(check(swapped).wrongAt()).isEqualTo(3);
    }
}
