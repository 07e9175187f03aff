package oakbasket.server.upload;

import java.io.IOException;
import java.util.Arrays;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import oakbasket.core.arrival.Archives;
import oakbasket.server.basket.Submission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.problem.Problem;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Item;
import org.springframework.stereotype.Component;

/**
 * How many files of an item may still begin; earlier submissions count too. On an open link those count that came through it under the same address from
 * the same caller, so that nobody learns by a refusal what somebody else sent. What was returned gives its place free; what is claimed takes none.
 */
@Component
class FileQuota {

    private static final int MOST_REMEMBERED = 10_000;

    /** One sender and item: how many files were counted, and which of them are on their way without a row. */
    private static final class Known {
        private final Set<String> begun = new HashSet<>();
        private int counted = -1;
    }

    private final UploadTable uploads;
    private final ReceivedFiles files;
    private final Submissions submissions;
    /** Counting and beginning go together for one sender; a stripe of locks keeps that from growing. */
    private final Object[] locks = Stream.generate(Object::new).limit(64).toArray();
    private final Map<String, Known> known = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Known> eldest) {
            return size() > MOST_REMEMBERED && eldest.getValue().begun.isEmpty();
        }
    };

    FileQuota(UploadTable uploads, ReceivedFiles files, Submissions submissions) {
        this.uploads = uploads;
        this.files = files;
        this.submissions = submissions;
    }

    /**
     * Begins one more. An archive that will be opened takes no place: each of its files does.
     *
     * @throws Problem when the item takes no more files
     */
    void take(Destination destination, Upload upload, Runnable begin) {
        Submission submission = destination.submission();
        Item item = destination.item();
        if (item.spec().opens(upload.fileName())) {
            begin.run();
            return;
        }
        synchronized (lockOf(submission)) {
            Known here = withRoom(submission, item);
            begin.run();
            here.counted++;
        }
    }

    /** Runs work that takes in what may be an archive. */
    <T> T during(Destination destination, Upload upload, Work<T> work) throws IOException {
        return destination.item().spec().opens(upload.fileName()) ? work.run() : during(destination.submission(), destination.item(), upload.id(), work);
    }

    /**
     * Runs work that takes in a file before it has a row, with a place kept for it.
     *
     * @throws Problem when the item takes no more files
     */
    <T> T during(Submission submission, Item item, String uploadId, Work<T> work) throws IOException {
        Known here;
        synchronized (lockOf(submission)) {
            here = withRoom(submission, item);
            here.begun.add(uploadId);
            here.counted++;
        }
        try {
            return work.run();
        } finally {
            synchronized (lockOf(submission)) {
                here.begun.remove(uploadId);
            }
        }
    }

    /** Work that takes in a file. */
    interface Work<T> {
        T run() throws IOException;
    }

    /** What was counted may be too much, when something was refused, given up or returned since; so it is counted anew before anybody is refused. */
    private Known withRoom(Submission submission, Item item) {
        Known here;
        synchronized (known) {
            here = known.computeIfAbsent(senderOf(submission) + " " + item.id(), key -> new Known());
        }
        int most = item.spec().maxFiles();
        if (here.counted < 0 || here.counted >= most) {
            here.counted = count(submission, item, here.begun);
        }
        if (here.counted >= most) {
            throw Problem.refused("too-many-files", item.spec().title(), most);
        }
        return here;
    }

    private int count(Submission submission, Item item, Set<String> begun) {
        List<Long> sameSender = submissions.ofSameSender(submission);
        int count = uploads.countLive(sameSender, item.id(), begun, item.spec().arrival().archives() != Archives.AS_SENT) + begun.size() - files.countReturned(sameSender, item.id());
        Long basket = submission.basketId();
        return submission.selfDeclared() || basket == null ? count : count + files.countKeptFromOthers(basket, item.id(), submission.id());
    }

    private Object lockOf(Submission submission) {
        return locks[Math.floorMod(senderOf(submission).hashCode(), locks.length)];
    }

    private static String senderOf(Submission submission) {
        return submission.selfDeclared() || submission.basketId() == null ? submission.linkId() + " " + submission.declaredKey() + " " + Arrays.hashCode(submission.callerHash())
                : "basket " + submission.basketId();
    }
}
