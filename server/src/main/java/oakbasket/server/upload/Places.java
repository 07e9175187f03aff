package oakbasket.server.upload;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.stream.Stream;
import oakbasket.server.basket.Submission;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Item;
import oakbasket.server.web.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * How many files of an item may still begin. On a personal link earlier submissions count too; on an open link only the submission itself, so that
 * nobody learns by a refusal what somebody else sent.
 */
@Component
class Places {

    private static final int MOST_REMEMBERED = 10_000;

    private record Key(long submissionId, long itemId) {
    }

    private final UploadTable uploads;
    private final ReceivedFiles files;
    /** Counting and beginning go together for one submission; a stripe of locks keeps that from growing. */
    private final Object[] locks = Stream.generate(Object::new).limit(64).toArray();
    private final Map<Key, Integer> begun = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<Key, Integer> eldest) {
            return size() > MOST_REMEMBERED;
        }
    };

    Places(UploadTable uploads, ReceivedFiles files) {
        this.uploads = uploads;
        this.files = files;
    }

    /**
     * Begins one more.
     *
     * @throws Problem when the item takes no more files
     */
    void take(Submission submission, Item item, Runnable begin) {
        Key key = new Key(submission.id(), item.id());
        synchronized (locks[(int) (submission.id() % locks.length)]) {
            Integer known = get(key);
            int before = known != null ? known : uploads.countLive(submission.id(), item.id())
                    + (submission.selfDeclared() ? 0 : files.countKeptFromOthers(submission.basketId(), item.id(), submission.id()));
            if (before >= item.spec().maxFiles()) {
                throw Problem.refused("too-many-files", item.spec().title(), item.spec().maxFiles());
            }
            begin.run();
            put(key, before + 1);
        }
    }

    /** To be called when an upload was given up or refused: the next one counts anew. */
    void forget(long submissionId, long itemId) {
        synchronized (begun) {
            begun.remove(new Key(submissionId, itemId));
        }
    }

    private @Nullable Integer get(Key key) {
        synchronized (begun) {
            return begun.get(key);
        }
    }

    private void put(Key key, int count) {
        synchronized (begun) {
            begun.put(key, count);
        }
    }
}
