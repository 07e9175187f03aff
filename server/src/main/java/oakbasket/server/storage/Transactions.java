package oakbasket.server.storage;

import java.util.function.Supplier;
import oakbasket.server.problem.Problem;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * The two ways to write. The database itself writes commits to disk a little later; whatever is acknowledged to somebody must be written
 * durably, which returns only after the database has flushed (H2 {@code CHECKPOINT SYNC}), shared among concurrent writers. Here, too, is kept that whoever only
 * reads changes nothing, whichever service they came through.
 */
@Component
public class Transactions {

    private final TransactionTemplate template;
    private final GroupFlush flush;

    Transactions(PlatformTransactionManager manager, JdbcClient jdbc) {
        this.template = new TransactionTemplate(manager);
        this.flush = new GroupFlush(() -> jdbc.sql("CHECKPOINT SYNC").update());
    }

    /** Commits and returns only when the commit would survive a power cut. Must not be called inside another transaction. */
    public <T> T durably(Supplier<T> work) {
        T result = quickly(work);
        flush.await();
        return result;
    }

    /** Like {@link #durably(Supplier)} for work without a result. */
    public void durably(Runnable work) {
        durably(() -> {
            work.run();
            return true;
        });
    }

    /** Like {@link #durably(Supplier)} for what is only the own of whoever is signed in, which every role may write. */
    public <T> T own(Supplier<T> work) {
        return Acting.own(() -> durably(work));
    }

    /** Like {@link #own(Supplier)} for work without a result. */
    public void own(Runnable work) {
        own(() -> {
            work.run();
            return true;
        });
    }

    /** Makes all that was committed before survive a power cut. */
    public void flush() {
        flush.await();
    }

    /** Commits; a power cut within the next second may undo it. For what can be done over, such as the progress of an upload. */
    public <T> T quickly(Supplier<T> work) {
        if (Acting.nobody()) {
            throw new IllegalStateException("Nobody was named for whom this is done");
        }
        if (Acting.readsOnly()) {
            throw Problem.of(Problem.Kind.FORBIDDEN, "role");
        }
        return template.execute(status -> work.get());
    }
}
