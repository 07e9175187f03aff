package oakbasket.server.audit;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.Optional;
import java.util.function.Function;
import oakbasket.core.audit.AuditChain;
import oakbasket.server.security.SecretKeys;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.DataFolder;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;

/**
 * The end of the trail, noted outside of the database every minute and signed with a key that is not in it either: whoever can write to the database alone can neither cut entries off its end nor write it anew unnoticed.
 * Nothing is ever noted over an end that is not found in the trail any more. Of two servers each notes what it finds; both notes are ends of the same trail.
 */
@Component
class AuditHead {

    /** The number and the hash of an entry. */
    record Noted(long number, byte[] hash) {
    }

    private static final String NAME = "audit-head";
    private static final Logger LOG = LoggerFactory.getLogger(AuditHead.class);

    private final Path file;
    private final AuditTable table;
    private final Function<byte[], byte[]> signer;

    @Autowired
    AuditHead(DataFolder folder, AuditTable table, SecretKeys keys) {
        this(folder.keys(), table, keys::sign);
    }

    AuditHead(Path keys, AuditTable table, Function<byte[], byte[]> signer) {
        this.file = keys.resolve(NAME);
        this.table = table;
        this.signer = signer;
    }

    /** Notes the end as it is now, unless what was noted before is missing from the trail. */
    @Scheduled(initialDelayString = "${oakbasket.audit-head-every:PT1M}", fixedDelayString = "${oakbasket.audit-head-every:PT1M}")
    synchronized void note() {
        Acting.officeDoes(() -> {
            if (missing() != null) {
                LOG.error("The end of the audit trail that was noted in {} is not in the trail any more; nothing is noted over it", file);
                return;
            }
            table.last().ifPresent(last -> write(new Noted(last.number(), last.hash())));
        });
    }

    @EventListener(ContextClosedEvent.class)
    void close() {
        note();
    }

    /** The number of the entry that was noted and is not in the trail, or is another one; null when it is there, or nothing was noted. A note with a wrong signature counts as entry 1. */
    @Nullable Long missing() {
        try {
            if (!Files.exists(file)) {
                return null;
            }
            Optional<Noted> noted = read();
            return noted.isEmpty() ? Long.valueOf(1) : table.hashAt(noted.get().number()).filter(hash -> Arrays.equals(hash, noted.get().hash())).isPresent() ? null : (Long) noted.get().number();
        } catch (IOException unreadable) {
            return 1L;
        }
    }

    private Optional<Noted> read() throws IOException {
        String[] parts = Files.readString(file, StandardCharsets.US_ASCII).strip().split(" ");
        if (parts.length != 3 || !parts[0].matches("\\d{1,18}") || !parts[1].matches("[0-9a-f]{64}") || !parts[2].equals(signature(parts[0], parts[1]))) {
            return Optional.empty();
        }
        return Optional.of(new Noted(Long.parseLong(parts[0]), HexFormat.of().parseHex(parts[1])));
    }

    private String signature(String number, String hash) {
        return HexFormat.of().formatHex(signer.apply((NAME + " " + number + " " + hash).getBytes(StandardCharsets.US_ASCII)));
    }

    private void write(Noted noted) {
        if (Arrays.equals(noted.hash(), AuditChain.BEGINNING)) {
            return;
        }
        String number = Long.toString(noted.number());
        String hash = HexFormat.of().formatHex(noted.hash());
        try {
            Path part = file.resolveSibling(NAME + ".part");
            Files.writeString(part, number + " " + hash + " " + signature(number, hash) + "\n", StandardCharsets.US_ASCII);
            DataFolder.forTheServerAlone(part, "rw-------");
            Files.move(part, file, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        } catch (IOException problem) {
            LOG.warn("The end of the audit trail could not be noted in {}", file, problem);
        }
    }
}
