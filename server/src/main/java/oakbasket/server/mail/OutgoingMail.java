package oakbasket.server.mail;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.time.Instant;
import java.util.Locale;
import oakbasket.core.identity.Person;
import org.jspecify.annotations.Nullable;

/**
 * A letter ready for the mail server.
 *
 * @param id unique in the world and the same at every try, so that a mailbox can tell a letter that came twice
 * @param to who gets it
 * @param replyTo who reads answers
 * @param body plain text, lines parted by line feeds; it also goes as HTML
 * @param language the language of subject and body
 * @param bounceTo where reports go that it cannot be delivered (RFC 5321, 4.4); empty for the address it comes from
 * @param inReplyTo the message that it answers, as its Message-ID stands there; empty when it answers none
 * @param calendar an iCalendar object (RFC 5545) that goes along; null when none does
 */
@RecordBuilder
public record OutgoingMail(String id, Person to, Person replyTo, String subject, String body, Instant date, Locale language, String bounceTo, String inReplyTo, @Nullable String calendar) {

    /** A letter in English without anything beside it. */
    public OutgoingMail(String id, Person to, Person replyTo, String subject, String body, Instant date) {
        this(id, to, replyTo, subject, body, date, Locale.ENGLISH, "", "", null);
    }
}
