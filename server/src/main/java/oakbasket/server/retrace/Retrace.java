package oakbasket.server.retrace;

import oakbasket.server.filing.Effects;
import oakbasket.server.filing.FileMoves;
import oakbasket.server.filing.Filing;
import oakbasket.server.journal.Act;
import oakbasket.server.journal.Journal;
import oakbasket.server.journal.JournalEntry;
import oakbasket.server.journal.Why;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.removal.RemovedFiles;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import org.springframework.stereotype.Service;

/** Takes one step of the journal back, where things still are as it left them. */
@Service
class Retrace {

    private final Journal journal;
    private final ReceivedFiles files;
    private final FileMoves moves;
    private final Filing filing;
    private final Effects effects;
    private final RemovedFiles removed;
    private final LiveHub live;

    Retrace(Journal journal, ReceivedFiles files, FileMoves moves, Filing filing, Effects effects, RemovedFiles removed, LiveHub live) {
        this.journal = journal;
        this.files = files;
        this.moves = moves;
        this.filing = filing;
        this.effects = effects;
        this.removed = removed;
        this.live = live;
    }

    /**
     * Takes an entry back.
     *
     * @throws Problem with status 409 and a reason when that is no longer possible
     */
    void undo(long entryId, long account) {
        JournalEntry entry = journal.byId(entryId);
        if (entry.undone()) {
            throw Problem.conflict("undone-already");
        }
        switch (entry.act()) {
            case MOVED, RENAMED -> back(entry, account);
            case COPIED -> {
                if (!effects.removeCopy(entry.fileId(), entry.toPlace(), new Journal.Cause(Act.REMOVED, Why.of("undone"), account, null, entry.id()))) {
                    throw Problem.conflict("undo-gone");
                }
            }
            case REMOVED -> {
                if (entry.toPlace().isEmpty()) {
                    throw Problem.conflict("undo-copy");
                }
                removed.restore(entry.fileId(), account);
            }
            case PLACED, RESTORED, PURGED, RECONCILED -> throw Problem.conflict("undo-never");
        }
        live.publish(new LiveEvent(LiveEvent.FILING, entry.roundId(), null));
    }

    private void back(JournalEntry entry, long account) {
        ReceivedFile file = files.find(entry.fileId()).orElseThrow(() -> Problem.conflict("undo-gone"));
        if (!file.storedPath().equals(entry.toPlace())) {
            throw Problem.conflict("undo-moved", file.storedPath());
        }
        FileMoves.Outcome outcome = moves.move(file, () -> {
            if (filing.taken(entry.fromPlace())) {
                throw Problem.conflict("undo-taken", entry.fromPlace());
            }
            return entry.fromPlace();
        }, () -> new Journal.Cause(entry.act(), Why.of("undone"), account, null, entry.id()), () -> effects.trayByPlace(file.id(), entry.fromPlace()));
        if (!outcome.there()) {
            throw Problem.conflict("undo-moved", file.storedPath());
        }
    }
}
