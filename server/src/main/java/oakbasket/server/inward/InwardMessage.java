package oakbasket.server.inward;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * A message that came by mail.
 *
 * @param fileName where it lies as it came, for a while
 * @param whole whether all of it was taken; else it is larger than may be
 * @param text what was written
 * @param letterId the letter that it answers or reports about
 * @param confirmed whether it is sure that it comes from the contact
 * @param why why it was not filed, or what a report says
 * @param readAt when a coordinator said that they have read it
 * @param answerAt when the answer went, or goes at the earliest
 */
@RecordBuilder
public record InwardMessage(long id, String folder, long folderNumber, String fileName, long sizeBytes, boolean whole, Instant cameAt, State state, Kind kind, String fromName, String fromAddress, String subject,
        String messageId, String text, @Nullable Long contactId, @Nullable Long basketId, @Nullable Long roundId, @Nullable Long letterId, @Nullable Long submissionId, boolean confirmed, String why, int tries,
        @Nullable Instant readAt, AnswerState answerState, String answerSubject, String answerBody, String answerLanguage, int answerTries, @Nullable Instant answerAt, String answerTrouble) {

    /** How far it was dealt with. */
    public enum State { TAKEN, DONE }

    /** What it turned out to be. */
    public enum Kind {
        /** Not looked at yet. */
        NEW,
        /** Papers were attached. */
        PAPERS,
        /** Somebody wrote, without papers. */
        ANSWER,
        /** A mail server reports what became of a letter. */
        REPORT,
        AUTOMATIC,
        LIST,
        LOOP,
        /** The same came before. */
        DUPLICATE,
        /** It is larger than may be. */
        TOO_LARGE,
        /** It cannot be read. */
        UNREADABLE
    }

    /** How far an answer came. */
    public enum AnswerState {
        NONE,
        WAITING,
        SENDING,
        SENT,
        FAILED,
        UNCERTAIN,
        /** The sender got as many answers as go in a day; this one goes together with others in one. */
        GATHERED
    }
}
