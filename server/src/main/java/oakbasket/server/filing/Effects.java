package oakbasket.server.filing;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.SortedSet;
import java.util.TreeSet;
import oakbasket.core.filing.FilingDecision;
import oakbasket.core.naming.SafeName;
import oakbasket.server.journal.Act;
import oakbasket.server.journal.Journal;
import oakbasket.server.journal.Why;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.Transactions;
import oakbasket.server.words.Words;
import org.springframework.stereotype.Service;

/** What rules do to files besides placing them: copies, marks, the tray. */
@Service
public class Effects {

    private final EffectTable table;
    private final ReceivedFiles files;
    private final Journal journal;
    private final FileStore store;
    private final Transactions transactions;
    private final String trayFolder;

    Effects(EffectTable table, ReceivedFiles files, Journal journal, FileStore store, Transactions transactions, Words words) {
        this.trayFolder = SafeName.of(words.of("folder.tray")) + "/";
        this.table = table;
        this.files = files;
        this.journal = journal;
        this.store = store;
        this.transactions = transactions;
    }

    /** The marks of files, by the file; one without any is left out. */
    public Map<Long, TreeSet<String>> marks(Collection<Long> of) {
        return table.marks(of);
    }

    /** The marks of a file. */
    public SortedSet<String> marks(long file) {
        return table.marks(List.of(file)).getOrDefault(file, new TreeSet<>());
    }

    /** The places where copies of a file lie. */
    public List<String> copiesOf(long file) {
        return table.copiesOf(file).stream().map(copy -> String.valueOf(copy.place())).toList();
    }

    /** The files whose copies lie at these places, by the key of the place. */
    public Map<String, Long> copiesAt(Collection<String> keys) {
        return table.copiesAt(keys);
    }

    /** The keys of all places where copies lie or are about to. */
    public List<String> everyCopy() {
        return table.everyCopy();
    }

    /** Notes what rules want of a file that was here before. Nobody is told of it. Runs in the caller's transaction. */
    public void beside(long file, FilingDecision decision, long batch) {
        decision.marks().forEach(mark -> table.mark(file, mark, batch));
        decision.copies().forEach(copy -> table.wantCopy(file, copy.target().place(), why(copy), batch));
    }

    /** Keeps the file's being in the tray in step with where it lies. Runs in the caller's transaction. */
    public void trayByPlace(long file, String place) {
        files.tray(file, place.startsWith(trayFolder));
    }

    /** Removes the copies and marks that a batch brought. */
    public void takeBack(long batch, long account) {
        transactions.durably(() -> table.unmark(batch));
        table.copiesOfBatch(batch).forEach(copy -> remove(copy, Journal.Cause.by(Act.REMOVED, Why.of("undone"), account)));
    }

    /** Has the copies of a file made again that went with it. Runs in the caller's transaction. */
    public void wantAgain(long file) {
        table.wantAgain(file);
    }

    /** Removes every copy of a file. */
    public void removeCopies(long file, Journal.Cause cause) {
        table.copiesOf(file).forEach(copy -> remove(copy, cause));
    }

    /** Removes the copy of a file that lies at a place; false when there is none. */
    public boolean removeCopy(long file, String place, Journal.Cause cause) {
        List<EffectTable.Copy> there = table.copiesOf(file).stream().filter(copy -> place.equals(copy.place())).toList();
        there.forEach(copy -> remove(copy, cause));
        return !there.isEmpty();
    }

    /** Why there is a copy. */
    static Why why(FilingDecision.Copied copy) {
        return new Why("rule-copy", copy.by(), copy.because(), null, null);
    }

    private void remove(EffectTable.Copy copy, Journal.Cause cause) {
        String place = copy.place();
        transactions.durably(() -> {
            if (table.copyGone(copy.id()) == 1 && copy.madeAt() != null && place != null) {
                long round = files.find(copy.fileId()).map(ReceivedFile::roundId).orElse(0L);
                journal.write(copy.fileId(), round, place, "", cause);
            }
        });
        // A copy that somebody has worked on is theirs: it stays, and is no copy any more.
        if (place != null && store.obstacle(place) == null && files.find(copy.fileId()).map(file -> store.holds(place, file.sha256())).orElse(true)) {
            store.remove(place);
        }
    }
}
