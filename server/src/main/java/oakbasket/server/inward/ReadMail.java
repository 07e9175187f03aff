package oakbasket.server.inward;

import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import oakbasket.core.inward.MailHeaders;
import oakbasket.core.inward.MailedPart;

/**
 * A message as far as it was read.
 *
 * @param fromName how the sender is called; empty where that is not said
 * @param from their address; empty where it cannot be read
 * @param oneAuthor whether the message names exactly one author: one field {@code From} with one address (RFC 5322, 3.6.2, allows more; whose word would count then nobody can tell)
 * @param recipients every address it was sent to that stands in its header
 * @param text what was written, without what it answers
 * @param report the fields of a delivery report (RFC 3464); empty where there is none
 * @param returned the header of the message that a report returns
 * @param parts what was attached, to it or to messages that it forwards
 * @param unread why the rest of it was not read; {@link Unread#NOTHING} where all was
 */
record ReadMail(MailHeaders headers, String subject, String fromName, String from, boolean oneAuthor, List<String> recipients, String text, String report, String returned, List<Part> parts, Unread unread) {

    /** What stopped the reading. */
    enum Unread {
        NOTHING,
        /** There are more parts than are read. */
        TOO_MANY,
        /** Parts lie deeper in one another than anybody nests them. */
        TOO_DEEP,
        /** From some place on it is no message any more. */
        BROKEN
    }

    /** The domain of the one author; empty where there is not exactly one. */
    String authorDomain() {
        return oneAuthor ? from.substring(from.lastIndexOf('@') + 1) : "";
    }

    /**
     * Something attached.
     *
     * @param path where it lies, decoded
     * @param whole whether all of it came; else it was longer than may be, or broken off
     * @param calendarMethod of a calendar, what it does (RFC 5546); empty otherwise
     * @param shownInText whether the text of the message shows it
     * @param forwardedFrom the address of who sent the message that is forwarded with it; empty where it was attached to the message itself
     */
    record Part(String name, String type, Path path, long bytes, boolean whole, String calendarMethod, boolean shownInText, String forwardedFrom) {

        /** What the rule asks of it. @param seenBefore whether the same bytes came before and were no paper */
        MailedPart.Facts facts(boolean seenBefore) {
            int dot = name.lastIndexOf('.');
            return new MailedPart.Facts(type, dot < 0 ? "" : name.substring(dot + 1).toLowerCase(Locale.ROOT), calendarMethod, shownInText, seenBefore);
        }
    }
}
