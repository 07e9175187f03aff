package oakbasket.server.findings;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import oakbasket.server.filing.Effects;
import oakbasket.server.journal.Act;
import oakbasket.server.journal.Journal;
import oakbasket.server.journal.Why;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.loose.LooseFiles;
import oakbasket.server.problem.Problem;
import oakbasket.server.removal.RemovedFiles;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.Transactions;
import org.springframework.stereotype.Service;

/** Reconciles records and disk, as somebody chooses; never by itself. */
@Service
public class Findings {

    /** What can be done about a finding. */
    public enum Choice {
        /** The record follows a file that was moved by hand. */
        FOLLOW,
        /** A file that was moved by hand goes back to where its record says. */
        PUT_BACK,
        /** The content that lies there now is taken for the file's. */
        TAKE_OVER,
        /** The record of a file that is gone goes to the bin. */
        GIVE_UP,
        /** A file that nobody knew waits in the tray for somebody to say whose it is. */
        TAKE_IN,
        /** It stays as it is, and is not told again. */
        LEAVE,
        /** It is told again. */
        MIND
    }

    private final FindingTable table;
    private final DiskScan scan;
    private final ReceivedFiles files;
    private final RemovedFiles removed;
    private final LooseFiles loose;
    private final Effects effects;
    private final Journal journal;
    private final FileStore store;
    private final Transactions transactions;
    private final LiveHub live;

    Findings(FindingTable table, DiskScan scan, ReceivedFiles files, RemovedFiles removed, LooseFiles loose, Effects effects, Journal journal, FileStore store, Transactions transactions, LiveHub live) {
        this.table = table;
        this.scan = scan;
        this.files = files;
        this.removed = removed;
        this.loose = loose;
        this.effects = effects;
        this.journal = journal;
        this.store = store;
        this.transactions = transactions;
        this.live = live;
    }

    /** How many files lie there that nobody knows and nobody has decided about. */
    public int unknown() {
        return table.open(Set.of(Finding.Kind.NEW));
    }

    /** How many received files are not at their places, or have another content than was received, and nobody has decided about. */
    public int goneOrAltered() {
        return table.open(Set.of(Finding.Kind.MISSING, Finding.Kind.ALTERED));
    }

    /** Looks at all folders now. */
    public void look() {
        scan.look();
    }

    List<Finding> all() {
        return table.all();
    }

    /** The unknown file that has the content of a missing one, if there is just one: it was moved by hand. */
    Optional<Finding> movedTo(Finding missing, List<Finding> all) {
        Long file = missing.fileId();
        byte[] hash = missing.kind() == Finding.Kind.MISSING && file != null ? files.find(file).map(ReceivedFile::sha256).orElse(null) : null;
        List<Finding> same = hash == null ? List.of() : all.stream().filter(one -> one.kind() == Finding.Kind.NEW && Arrays.equals(one.sha256(), hash)).toList();
        return same.size() == 1 ? Optional.of(same.get(0)) : Optional.empty();
    }

    /**
     * Does what somebody chose.
     *
     * @throws Problem with status 409 when things are not as they were found any more
     */
    void settle(long id, Choice choice, long account) {
        Finding finding = table.byId(id).orElseThrow(() -> Problem.conflict("changed-elsewhere"));
        switch (choice) {
            case LEAVE, MIND -> transactions.durably(() -> table.leaveAlone(id, choice == Choice.LEAVE));
            case FOLLOW -> follow(finding, account);
            case PUT_BACK -> putBack(finding, account);
            case TAKE_OVER -> takeOver(finding, account);
            case TAKE_IN -> takeIn(finding, account);
            case GIVE_UP -> giveUp(finding, account);
        }
        live.publish(new LiveEvent(LiveEvent.FILING, 0, null));
        if (choice != Choice.LEAVE && choice != Choice.MIND) {
            scan.look();
        }
    }

    private ReceivedFile file(Finding finding, Finding.Kind kind) {
        if (finding.kind() != kind || finding.fileId() == null) {
            throw Problem.conflict("finding-other");
        }
        return files.find(Objects.requireNonNull(finding.fileId())).filter(file -> file.storedPath().equals(finding.place())).orElseThrow(() -> Problem.conflict("changed-elsewhere"));
    }

    private Finding moved(Finding finding) {
        return movedTo(finding, table.all()).orElseThrow(() -> Problem.conflict("finding-other"));
    }

    private void follow(Finding finding, long account) {
        ReceivedFile file = file(finding, Finding.Kind.MISSING);
        Finding there = moved(finding);
        same(there.place(), file.sha256());
        transactions.durably(() -> {
            if (!files.relocate(file, there.place())) {
                throw Problem.conflict("changed-elsewhere");
            }
            journal.write(file.id(), file.roundId(), file.storedPath(), there.place(), Journal.Cause.by(Act.RECONCILED, Why.of("found"), account));
            effects.trayByPlace(file.id(), there.place());
        });
    }

    private void putBack(Finding finding, long account) {
        ReceivedFile file = file(finding, Finding.Kind.MISSING);
        Finding there = moved(finding);
        same(there.place(), file.sha256());
        if (!store.place(store.resolve(there.place()), file.storedPath())) {
            throw Problem.conflict("place-taken");
        }
        transactions.durably(() -> journal.write(file.id(), file.roundId(), there.place(), file.storedPath(), Journal.Cause.by(Act.RECONCILED, Why.of("put-back"), account)));
        store.removeName(there.place(), file.storedPath());
    }

    private void takeOver(Finding finding, long account) {
        ReceivedFile file = file(finding, Finding.Kind.ALTERED);
        byte[] hash = Objects.requireNonNull(finding.sha256());
        same(finding.place(), hash);
        transactions.durably(() -> {
            files.alter(file, hash, finding.sizeBytes());
            journal.write(file.id(), file.roundId(), file.storedPath(), file.storedPath(),
                    Journal.Cause.by(Act.RECONCILED, Why.noted("altered", HexFormat.of().formatHex(file.sha256())), account));
        });
    }

    private void takeIn(Finding finding, long account) {
        if (finding.kind() != Finding.Kind.NEW) {
            throw Problem.conflict("finding-other");
        }
        loose.takeIn(finding.place(), Objects.requireNonNull(finding.sha256()), account);
    }

    private void giveUp(Finding finding, long account) {
        ReceivedFile file = file(finding, Finding.Kind.MISSING);
        if (Files.exists(store.resolve(finding.place()))) {
            throw Problem.conflict("changed-elsewhere");
        }
        removed.giveUp(file, account);
    }

    private void same(String place, byte[] hash) {
        try {
            if (!Arrays.equals(FileStore.digest(store.resolve(place)), hash)) {
                throw Problem.conflict("changed-elsewhere");
            }
        } catch (NoSuchFileException gone) {
            throw Problem.conflict("changed-elsewhere");
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }
}
