package oakbasket.server.journal;

import java.time.Clock;
import java.util.List;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.Acting;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Writes down what is done to files, and reads it. Everything written runs in the caller's transaction, so that the journal and the records never differ. */
@Component
public class Journal {

    /** The most entries that are read at once. */
    public static final int MOST = 200;

    /**
     * Who does something to a file, and why.
     *
     * @param account null when a rule or the program does
     * @param batch the refiling it belongs to
     * @param undoes the entry that is taken back
     */
    public record Cause(Act act, Why why, @Nullable Long account, @Nullable Long batch, @Nullable Long undoes) {

        /** What the program does by itself. */
        public static Cause of(Act act, Why why) {
            return new Cause(act, why, null, null, null);
        }

        /** What somebody does. */
        public static Cause by(Act act, Why why, long account) {
            return new Cause(act, why, account, null, null);
        }
    }

    private final JournalTable table;
    private final Clock clock;

    Journal(JournalTable table, Clock clock) {
        this.table = table;
        this.clock = clock;
    }

    /** Writes down what was done. */
    public void write(long file, long round, String from, String to, Cause cause) {
        table.insert(file, round, cause.act(), from, to, clock.instant(), who(cause), cause.why(), cause.batch(), cause.undoes(), false);
    }

    /** Writes down what is about to be done; it is not shown until {@link #end}. */
    public void begin(long file, long round, String from, String to, Cause cause) {
        table.insert(file, round, cause.act(), from, to, clock.instant(), who(cause), cause.why(), cause.batch(), cause.undoes(), true);
    }

    /** Who it is told of: also what follows from something that somebody of the office does, such as a place for a paper that they file, is theirs. */
    private static @Nullable Long who(Cause cause) {
        Acting.Who who = Acting.who();
        return cause.account() == null && who != null ? (Long) who.account() : cause.account();
    }

    /** What was begun with a file is done. */
    public void end(long file) {
        table.end(file);
    }

    /** What was begun with a file was not done. */
    public void drop(long file) {
        table.drop(file);
    }

    /** One entry, or 404. */
    public JournalEntry byId(long id) {
        return table.byId(id).orElseThrow(() -> Problem.notFound("no-entry"));
    }

    /** The newest entries that are wanted, at most {@link #MOST}. */
    public List<JournalEntry> found(JournalFilter wanted) {
        return table.found(wanted, MOST);
    }

    /** The newest entries that are wanted, at most so many. */
    public List<JournalEntry> found(JournalFilter wanted, int most) {
        return table.found(wanted, most);
    }
}
