package oakbasket.server.team;

import java.time.Clock;
import oakbasket.core.identity.Person;
import oakbasket.server.Settings;
import oakbasket.server.brand.Brand;
import oakbasket.server.mail.MailTrouble;
import oakbasket.server.mail.Mailer;
import oakbasket.server.mail.OutgoingMail;
import oakbasket.server.security.SecretKeys;
import oakbasket.server.words.Words;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Writes to people of the office about their accounts. Nothing of the secret they are sent comes into a log. */
@Component
class TeamLetters {

    private static final Logger LOG = LoggerFactory.getLogger(TeamLetters.class);

    private final Mailer mailer;
    private final Settings settings;
    private final Brand brand;
    private final SecretKeys keys;
    private final Words words;
    private final Clock clock;

    TeamLetters(Mailer mailer, Settings settings, SecretKeys keys, Words words, Clock clock, Brand brand) {
        this.brand = brand;
        this.mailer = mailer;
        this.settings = settings;
        this.keys = keys;
        this.words = words;
        this.clock = clock;
    }

    /** Asks somebody to make their account. @return why the letter could not go; empty when it did */
    String invitation(Person person, Person from, String link, int days) {
        return send(person, from, words.of("team.invitation-subject", brand.name()), words.of("team.invitation-body", person.name(), from.name(), brand.name(), link, days));
    }

    /** Tells somebody how to set a new password. */
    String reset(Person person, String link, int minutes) {
        return send(person, person, words.of("team.reset-subject"), words.of("team.reset-body", person.name(), link, minutes));
    }

    /** Tells somebody that their password, or what signing in asks for, was changed, so that they notice when it was not they who did. */
    String changed(Person person, String what) {
        return send(person, person, words.of("team.changed-subject"), words.of("team.changed-body", person.name(), words.of("team.changed-" + what), brand.name()));
    }

    private String send(Person to, Person from, String subject, String body) {
        String sender = settings.letterSender();
        try {
            mailer.send(new OutgoingMail("oak-team-" + keys.token() + sender.substring(sender.lastIndexOf('@')), to, from, subject, body, clock.instant()));
            return "";
        } catch (MailTrouble trouble) {
            String why = words.of(trouble.reason());
            LOG.warn("A letter about an account could not go: {}", why);
            return why;
        }
    }
}
