package oakbasket.server.form;

import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Clock;
import java.util.Set;
import oakbasket.core.filekind.KindCheck;
import oakbasket.core.naming.SafeName;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.Transactions;
import org.apache.tika.Tika;
import org.springframework.stereotype.Service;

/** Blank forms that senders can take along. */
@Service
public class Forms {

    /** The largest form in bytes: 20 MiB. */
    static final int MOST_BYTES = 20 * 1024 * 1024;

    /** A form as a sheet names it. */
    record KeptForm(long id, String name) {
    }

    private final FormTable table;
    private final Transactions transactions;
    private final Clock clock;
    private final Tika tika = new Tika();

    Forms(FormTable table, Transactions transactions, Clock clock) {
        this.table = table;
        this.transactions = transactions;
        this.clock = clock;
    }

    /**
     * Keeps a form.
     *
     * @throws Problem with status 422 when it is empty or a program
     */
    KeptForm keep(String name, byte[] content) {
        if (content.length == 0) {
            throw Problem.refused("form-empty");
        }
        String safe = SafeName.of(name.isBlank() ? "form" : name);
        String type = tika.detect(content, safe);
        if (KindCheck.byContent(Set.of(), safe, type, false) != KindCheck.Verdict.ACCEPTED) {
            throw Problem.refused("kind-program", safe);
        }
        long id = transactions.durably(() -> table.insert(safe, type, sha256(content), content, clock.instant()));
        return new KeptForm(id, safe);
    }

    /** A form to be taken along, or 404. */
    public BlankForm byId(long id) {
        return table.byId(id).orElseThrow(() -> Problem.notFound("no-form"));
    }

    /** Whether there is such a form. */
    public boolean exists(long id) {
        return table.exists(id);
    }

    /** The name of a form; empty when there is none. */
    public String name(long id) {
        return table.name(id).orElse("");
    }

    private static byte[] sha256(byte[] content) {
        try {
            return MessageDigest.getInstance("SHA-256").digest(content);
        } catch (NoSuchAlgorithmException impossible) {
            throw new IllegalStateException(impossible);
        }
    }
}
