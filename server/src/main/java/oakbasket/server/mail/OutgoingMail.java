package oakbasket.server.mail;

import java.time.Instant;
import oakbasket.core.identity.Person;
import org.jspecify.annotations.Nullable;

/**
 * A letter ready for the mail server.
 *
 * @param id unique in the world and the same at every try, so that a mailbox can tell a letter that came twice
 * @param to who gets it
 * @param replyTo who reads answers
 * @param body plain text, lines parted by line feeds; it also goes as HTML
 * @param calendar an iCalendar object (RFC 5545) that goes along; null when none does
 */
public record OutgoingMail(String id, Person to, Person replyTo, String subject, String body, Instant date, @Nullable String calendar) {

    /** A letter without anything beside it. */
    public OutgoingMail(String id, Person to, Person replyTo, String subject, String body, Instant date) {
        this(id, to, replyTo, subject, body, date, null);
    }
}
