package oakbasket.server.audit;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.HexFormat;
import oakbasket.core.audit.AuditChain;
import oakbasket.core.audit.AuditKey;
import oakbasket.server.security.SecretKeys;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.datasource.DriverManagerDataSource;

/**
 * Checks the trail of a data folder that no server works on, such as a backup, from a command line: {@code check-audit --oakbasket.data=folder [--head=hash]}. It prints
 * how many entries there are, the number of the first that is not as it was written (null when all are), the hash of the last one, and whether a hash that was noted
 * earlier is still among them, as one JSON object.
 */
public final class CheckAudit {

    /** The first argument that asks for it. */
    public static final String COMMAND = "check-audit";
    private static final String DATA = "--oakbasket.data=";
    private static final String HEAD = "--head=";

    private CheckAudit() {
    }

    /** @return the exit status: 0 when the trail is whole, 1 when it is not */
    public static int run(String... args) {
        String data = value(DATA, args);
        String noted = value(HEAD, args);
        Path database = Path.of(data == null ? "data" : data).resolve("db").resolve("oak-basket").toAbsolutePath();
        DriverManagerDataSource source = new DriverManagerDataSource("jdbc:h2:file:" + database + ";IFEXISTS=TRUE;ACCESS_MODE_DATA=r", "sa", "");
        Path keys = Path.of(data == null ? "data" : data).resolve("keys");
        AuditChain chain = new AuditChain(key(keys));
        boolean[] there = {noted == null};
        AuditTable table = AuditTable.in(source);
        table.all((entry, hash) -> {
            chain.next(entry, hash);
            there[0] |= HexFormat.of().formatHex(hash).equals(noted);
        });
        Long wrongAt = chain.wrongAt() != null ? chain.wrongAt() : new AuditHead(keys, table, SecretKeys.signerIn(keys)).missing();
        boolean whole = wrongAt == null && there[0];
        System.out.printf("{\"entries\":%d,\"wrongAt\":%s,\"head\":\"%s\",\"headFound\":%s,\"whole\":%s}%n", chain.checked(), wrongAt, HexFormat.of().formatHex(chain.head()), there[0], whole);
        return whole ? 0 : 1;
    }

    private static AuditKey key(Path keys) {
        try {
            return AuditKeys.found(keys, SecretKeys.signerIn(keys));
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    private static @Nullable String value(String name, String... args) {
        return Arrays.stream(args).filter(arg -> arg.startsWith(name)).map(arg -> arg.substring(name.length())).findFirst().orElse(null);
    }
}
