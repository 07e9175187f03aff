package oakbasket.server.upload;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.HexFormat;
import oakbasket.server.basket.Submission;
import oakbasket.server.problem.Problem;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Item;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import org.springframework.stereotype.Service;

/** Files what came without a link, as if it had been sent: by the rules, by the same steps and with the same record. What an item asks for binds senders, not a coordinator who has looked at the paper. */
@Service
public class DeskArrivals {

    private final Arrivals arrivals;
    private final Rounds rounds;
    private final ReceivedFiles files;
    private final ContentGate gate;

    DeskArrivals(Arrivals arrivals, Rounds rounds, ReceivedFiles files, ContentGate gate) {
        this.arrivals = arrivals;
        this.rounds = rounds;
        this.files = files;
        this.gate = gate;
    }

    /** A paper whose bytes lie whole and flushed where the bytes of an upload with this id would. */
    public record Paper(String uploadId, String fileName, long sizeBytes, byte[] sha256, String mediaType, boolean unchecked, Instant cameAt) {
    }

    /**
     * Looks whether an item takes a file, as it would from its sender's page.
     *
     * @param path where its bytes lie
     * @throws Problem when it does not
     */
    public void check(Path path, String name, long bytes, Round round, Item item) throws IOException {
        FileCheck.checkFile(round, item, name, bytes);
        gate.accepted(path, name, round, item, false);
    }

    /**
     * Files it.
     *
     * @return the received file
     * @throws Problem when the round was closed meanwhile
     */
    public long file(Paper paper, Submission sending, long roundId, Item item) {
        Upload upload = new Upload(paper.uploadId(), sending.id(), item.id(), paper.fileName(), paper.sizeBytes(), 0, Upload.State.OPEN, paper.cameAt(), "");
        arrivals.arrive(upload, false, new Destination(sending, rounds.opened(roundId), item), HexFormat.of().formatHex(paper.sha256()), paper.mediaType(), paper.cameAt(),
                new Mark(paper.unchecked(), false, false));
        return files.idOf(paper.uploadId()).orElseThrow();
    }
}
