package oakbasket.server.inward;

import java.nio.file.Path;
import java.util.List;
import oakbasket.core.inward.MailHeaders;

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
 * @param parts what was attached
 * @param pictures how many small pictures stand in the text and are no papers
 */
record ReadMail(MailHeaders headers, String subject, String fromName, String from, boolean oneAuthor, List<String> recipients, String text, String report, String returned, List<Part> parts, int pictures) {

    /** The domain of the one author; empty where there is not exactly one. */
    String authorDomain() {
        return oneAuthor ? from.substring(from.lastIndexOf('@') + 1) : "";
    }

    /**
     * Something attached.
     *
     * @param path where it lies, decoded
     * @param whole whether all of it came; else it was longer than may be, or broken off
     */
    record Part(String name, String type, Path path, long bytes, boolean whole) {
    }
}
