package oakbasket.server.mail;

import java.time.Instant;
import oakbasket.core.identity.Person;

/**
 * A letter ready for the mail server.
 *
 * @param id unique in the world and the same at every try, so that a mailbox can tell a letter that came twice
 * @param to who gets it
 * @param replyTo who reads answers
 * @param body plain text, lines parted by line feeds
 */
public record OutgoingMail(String id, Person to, Person replyTo, String subject, String body, Instant date) {
}
