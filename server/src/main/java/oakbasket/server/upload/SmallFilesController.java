package oakbasket.server.upload;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.servlet.http.HttpServletRequest;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Semaphore;
import java.util.function.Function;
import java.util.stream.Collectors;
import oakbasket.server.basket.Submission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.link.Link;
import oakbasket.server.link.Links;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Item;
import oakbasket.server.round.Rounds;
import oakbasket.server.security.FromOutside;
import oakbasket.server.storage.Acting;
import oakbasket.server.web.Caller;
import oakbasket.server.web.ProblemWriter;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Takes several small files in one request: on a line with long ways each request costs more than the bytes of a small file, and the disk flushes many together
 * in the time of one. Each is received or refused by itself, as if it had come alone.
 */
@RestController
@FromOutside
class SmallFilesController {

    static final int MOST_FILES = 64;
    static final long MOST_BYTES = 2 << 20;
    private static final int MOST_INDEX_BYTES = 60_000;
    /** Bodies of this kind are held in memory while they come. */
    private static final int MOST_AT_ONCE = 12;
    /** As many as the page of senders sends at once; nobody keeps others out by sending slowly. */
    private static final int MOST_OF_A_CALLER = 4;
    private static final int FILED_AT_ONCE = 16;

    /**
     * One file of a body.
     *
     * @param bytes its length
     * @param once chosen by the client, so that a file that comes a second time because an answer was lost is one file
     */
    record SmallFile(int item, @Nullable String name, long bytes, @Nullable String once) {
    }

    /** What became of a file; the problem is null when it was received. */
    record Received(@Nullable JsonNode problem) {
    }

    private final Uploads uploads;
    private final Links links;
    private final Submissions submissions;
    private final Rounds rounds;
    private final Transfers transfers;
    private final ProblemWriter problems;
    private final JsonMapper json;
    private final Map<String, Integer> ofCallers = new ConcurrentHashMap<>();
    private final Semaphore places = new Semaphore(MOST_AT_ONCE);
    private final ExecutorService filing = Executors.newFixedThreadPool(FILED_AT_ONCE, work -> {
        Thread thread = new Thread(work, "file");
        thread.setDaemon(true);
        return thread;
    });

    SmallFilesController(Uploads uploads, Links links, Submissions submissions, Rounds rounds, Transfers transfers, ProblemWriter problems, JsonMapper json) {
        this.uploads = uploads;
        this.links = links;
        this.submissions = submissions;
        this.rounds = rounds;
        this.transfers = transfers;
        this.problems = problems;
        this.json = json;
    }

    @Operation(summary = "Takes up to 64 files of 2 MiB together: a list of item, name, bytes and once in JSON, as long as Oak-Index says, then their bytes; tells of each what became of it")
    @PostMapping("/api/basket/files")
    List<Received> receiveSmallFiles(@RequestHeader(value = "Oak-Link", required = false) @Nullable String token,
            @RequestHeader(value = "Oak-Ticket", required = false) @Nullable String ticket,
            @RequestHeader(value = "Oak-Submission", required = false) @Nullable String key,
            @RequestHeader(value = "Oak-Index", required = false) @Nullable String index,
            HttpServletRequest request) throws IOException {
        String caller = Caller.of(request);
        Links.Admitted in = links.admitSending(token, ticket, caller, submissions.countedThrough(key));
        Submission submission = submissions.byKey(key);
        if (submission.linkId() != in.link().id()) {
            throw Problem.notFound("no-submission");
        }
        if (index == null || !index.matches("\\d{1,5}") || Integer.parseInt(index) > MOST_INDEX_BYTES) {
            throw Problem.unreadable("unreadable");
        }
        int indexBytes = Integer.parseInt(index);
        if (ofCallers.merge(caller, 1, Integer::sum) > MOST_OF_A_CALLER || !places.tryAcquire()) {
            leave(caller);
            throw Problem.of(Problem.Kind.TOO_MANY, "too-many-transfers", MOST_OF_A_CALLER);
        }
        try {
            return transfers.run(in.link().id(), caller, () -> all(request.getInputStream(), indexBytes, in, submission, caller));
        } finally {
            places.release();
            leave(caller);
        }
    }

    private void leave(String caller) {
        ofCallers.computeIfPresent(caller, (key, count) -> count == 1 ? null : count - 1);
    }

    private List<Received> all(InputStream body, int indexBytes, Links.Admitted in, Submission submission, String caller) throws IOException {
        List<SmallFile> files = read(body.readNBytes(indexBytes));
        Map<Integer, Item> items = rounds.items(in.link().roundId()).stream().collect(Collectors.toMap(Item::number, Function.identity()));
        List<CompletableFuture<@Nullable Problem>> filed = new ArrayList<>();
        for (SmallFile file : files) {
            byte[] content = body.readNBytes((int) file.bytes());
            if (content.length < file.bytes()) {
                break;
            }
            filed.add(CompletableFuture.supplyAsync(() -> Acting.asOffice(() -> one(file, content, items, in, submission, caller)), filing));
        }
        List<Received> received = new ArrayList<>();
        for (CompletableFuture<@Nullable Problem> one : filed) {
            try {
                Problem refused = one.join();
                received.add(new Received(refused == null ? null : problems.tree(refused)));
            } catch (CompletionException broken) {
                throw broken.getCause() instanceof RuntimeException cause ? cause : broken;
            }
        }
        if (received.size() < files.size()) {
            throw Problem.unreadable("unreadable");
        }
        return received;
    }

    private @Nullable Problem one(SmallFile file, byte[] content, Map<Integer, Item> items, Links.Admitted in, Submission submission, String caller) {
        try {
            Item item = items.get(file.item());
            if (item == null) {
                return Problem.refused("no-such-item");
            }
            Link link = in.link();
            Destination destination = new Destination(submission, in.round(), item);
            uploads.beginWithBytes(link, destination, new Uploads.Told(String.valueOf(file.name()), file.bytes(), "", file.once()), caller, new ByteArrayInputStream(content));
            return null;
        } catch (Problem refused) {
            return refused;
        }
    }

    private List<SmallFile> read(byte[] index) {
        List<SmallFile> files;
        try {
            files = List.of(json.readValue(index, SmallFile[].class));
        } catch (JacksonException | NullPointerException notAList) {
            throw Problem.unreadable("unreadable");
        }
        long bytes = 0;
        for (SmallFile file : files) {
            if (file.bytes() < 0 || file.bytes() > MOST_BYTES || file.name() == null) {
                throw Problem.unreadable("unreadable");
            }
            bytes += file.bytes();
        }
        if (files.isEmpty() || files.size() > MOST_FILES || bytes > MOST_BYTES) {
            throw Problem.unreadable("unreadable");
        }
        return files;
    }
}
