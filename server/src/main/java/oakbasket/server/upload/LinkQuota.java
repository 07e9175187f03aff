package oakbasket.server.upload;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import oakbasket.core.link.LinkLimits;
import oakbasket.core.link.LinkUse;
import oakbasket.server.basket.Submissions;
import oakbasket.server.link.Link;
import oakbasket.server.problem.Problem;
import oakbasket.server.review.ReceivedFiles;
import org.springframework.stereotype.Component;

/**
 * Holds a link to its own limits. What is on its way counts from its beginning, so that many at once are no more than one after another; what is begun and
 * brings nothing stops counting after a while, so that nobody keeps others out by announcing.
 */
@Component
class LinkQuota {

    private static final Duration LIFE = Duration.ofMinutes(15);

    private record Begun(long linkId, long bytes, boolean running, Instant at) {
    }

    private final Submissions submissions;
    private final ReceivedFiles files;
    private final Clock clock;
    private final Map<String, Begun> begun = new HashMap<>();

    LinkQuota(Submissions submissions, ReceivedFiles files, Clock clock) {
        this.submissions = submissions;
        this.files = files;
        this.clock = clock;
    }

    /**
     * Takes a file's place, or takes it anew for one that goes on.
     *
     * @throws Problem when the link takes no more
     */
    void take(Link link, String uploadId, String fileName, long bytes) {
        LinkLimits limits = link.terms().limits();
        refuse(limits, limits.by(LinkUse.NONE, bytes), fileName);
        if (!limits.counted()) {
            return;
        }
        synchronized (begun) {
            Instant now = clock.instant();
            begun.values().removeIf(one -> !one.running() && one.at().plus(LIFE).isBefore(now));
            List<Begun> others = begun.entrySet().stream().filter(one -> one.getValue().linkId() == link.id() && !one.getKey().equals(uploadId) && !files.receivedBy(one.getKey()))
                    .map(Map.Entry::getValue).toList();
            LinkUse came = submissions.through(link.id());
            LinkUse use = new LinkUse(came.uses(), came.files() + others.size(), came.bytes() + others.stream().mapToLong(Begun::bytes).sum());
            refuse(limits, limits.by(use, bytes), fileName);
            begun.put(uploadId, new Begun(link.id(), bytes, true, now));
        }
    }

    /** Says that nothing comes just now. */
    void rest(String uploadId, boolean allThere) {
        synchronized (begun) {
            begun.computeIfPresent(uploadId, (id, one) -> allThere ? null : new Begun(one.linkId(), one.bytes(), false, clock.instant()));
        }
    }

    private static void refuse(LinkLimits limits, LinkLimits.Reached reached, String fileName) {
        switch (reached) {
            case NOTHING -> {
            }
            case FILE_SIZE -> throw Problem.of(Problem.Kind.TOO_LARGE, "link-file-size", fileName, FileCheck.mebibytes(limits.fileBytes() == null ? 0 : limits.fileBytes()));
            case FILES -> throw Problem.refused("link-files", limits.files() == null ? 0 : limits.files());
            case TOTAL_SIZE -> throw Problem.refused("link-total", FileCheck.mebibytes(limits.totalBytes() == null ? 0 : limits.totalBytes()));
        }
    }
}
