package oakbasket.server.decode.work;

import java.nio.file.Path;

/**
 * One thing that a child process does with one file. The record itself goes to the child and what it answers comes back, both as JSON.
 *
 * @param <A> what comes back: a record
 */
public sealed interface DecodeWork<A> permits LookAt, DrawPage, ReadRows, ReadCards, ReadCalendar, MakeLogo, ReadMarkup, OpenEnvelope {

    /** 16 MiB. */
    int USUAL_ANSWER_BYTES = 16 << 20;

    /**
     * Does it; called in a child process, and nowhere else.
     *
     * @param file the one file that the child may read
     * @throws oakbasket.server.problem.Problem when the file is refused, with words for people
     * @throws Exception when it is damaged
     */
    A work(Path file) throws Exception;

    /** The class of what comes back. */
    Class<A> answers();

    /** The longest answer that is read, in bytes. */
    default int longestAnswer() {
        return USUAL_ANSWER_BYTES;
    }
}
