package oakbasket.server.audit;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.HexFormat;
import java.util.function.UnaryOperator;
import oakbasket.core.audit.AuditKey;
import oakbasket.server.storage.DataFolder;

/** Keeps beside the key, outside of the database, from which entry on the trail is signed with it: from its first, or from the first after the version that began to sign. */
final class AuditKeys {

    private static final String NAME = "audit-signed";
    private static final byte[] ENTRY = "audit-entry ".getBytes(StandardCharsets.US_ASCII);

    private AuditKeys() {
    }

    /**
     * The key as it is used. A note with a wrong signature counts as if every entry were signed, so that it is noticed.
     *
     * @param last the number of the last entry, 0 for none; the next is the first that is signed where nothing was noted so far
     */
    static AuditKey begun(Path keys, UnaryOperator<byte[]> signer, long last) {
        try {
            Path file = keys.resolve(NAME);
            if (!Files.exists(file)) {
                String from = Long.toString(last + 1);
                Path part = keys.resolve(NAME + ".part");
                Files.writeString(part, from + " " + signature(signer, from) + "\n", StandardCharsets.US_ASCII);
                DataFolder.forTheServerAlone(part, "rw-------");
                Files.move(part, file, StandardCopyOption.ATOMIC_MOVE);
            }
            return found(keys, signer);
        } catch (IOException problem) {
            throw new UncheckedIOException("It cannot be noted in " + keys + " from where on the trail is signed", problem);
        }
    }

    /** The key for a trail that is only checked: where nothing was noted, nothing was signed yet. */
    static AuditKey found(Path keys, UnaryOperator<byte[]> signer) throws IOException {
        Path file = keys.resolve(NAME);
        String[] parts = Files.exists(file) ? Files.readString(file, StandardCharsets.US_ASCII).strip().split(" ") : new String[0];
        boolean right = parts.length == 2 && parts[0].matches("\\d{1,18}") && parts[1].equals(signature(signer, parts[0]));
        return new AuditKey(parts.length == 0 ? Long.MAX_VALUE : right ? Long.parseLong(parts[0]) : 1, hash -> {
            ByteArrayOutputStream both = new ByteArrayOutputStream();
            both.writeBytes(ENTRY);
            both.writeBytes(hash);
            return signer.apply(both.toByteArray());
        });
    }

    private static String signature(UnaryOperator<byte[]> signer, String from) {
        return HexFormat.of().formatHex(signer.apply((NAME + " " + from).getBytes(StandardCharsets.US_ASCII)));
    }
}
