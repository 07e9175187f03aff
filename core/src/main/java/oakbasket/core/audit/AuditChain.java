package oakbasket.core.audit;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * The chain that entries of the trail form: the hash of each (SHA-256, FIPS 180-4) covers the hash of the one before it, so that none can be changed, left out, put in
 * or put elsewhere without every later hash becoming another. From some entry on each is signed ({@link AuditKey}). Whoever notes the last hash somewhere else can tell later whether the end was cut off too.
 */
public final class AuditChain {

    /** What stands before the first entry. */
    public static final byte[] BEGINNING = new byte[32];

    private final AuditKey key;
    private long checked;
    private byte[] head = BEGINNING;
    private @Nullable Long wrongAt;

    public AuditChain(AuditKey key) {
        this.key = key;
    }

    /** The hash of an entry, before it is signed. Texts are told with their length, so that no two entries read the same. */
    public static byte[] hash(byte[] before, AuditRecord entry) {
        MessageDigest digest = sha256();
        digest.update(before);
        digest.update(ByteBuffer.allocate(4 * Long.BYTES + Integer.BYTES).putLong(entry.number()).putLong(entry.at().getEpochSecond()).putLong(entry.at().getNano()).putLong(entry.account()).putInt(entry.status()).array());
        for (String text : new String[] {entry.who(), entry.caller(), entry.kind().name(), entry.operation(), entry.subject()}) {
            byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
            digest.update(ByteBuffer.allocate(Integer.BYTES).putInt(bytes.length).array());
            digest.update(bytes);
        }
        return digest.digest();
    }

    /** Looks at the next entry, with the hash that stands beside it. */
    public void next(AuditRecord entry, byte[] noted) {
        byte[] right = key.hash(head, entry);
        if (wrongAt == null && (entry.number() != checked + 1 || !Arrays.equals(right, noted))) {
            wrongAt = checked + 1;
        }
        checked++;
        head = noted.clone();
    }

    /** How many entries were looked at. */
    public long checked() {
        return checked;
    }

    /** The number of the first entry that is not as it was written, or is missing; null when all are right. */
    public @Nullable Long wrongAt() {
        return wrongAt;
    }

    /** The hash of the last entry. */
    public byte[] head() {
        return head.clone();
    }

    private static MessageDigest sha256() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException impossible) {
            throw new IllegalStateException(impossible);
        }
    }
}
