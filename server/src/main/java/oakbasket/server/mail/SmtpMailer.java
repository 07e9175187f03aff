package oakbasket.server.mail;

import jakarta.mail.MessagingException;
import jakarta.mail.Transport;
import jakarta.mail.internet.AddressException;
import java.util.ArrayDeque;
import java.util.Collections;
import java.util.Deque;
import java.util.IdentityHashMap;
import java.util.Optional;
import java.util.Properties;
import java.util.Set;
import java.util.function.Supplier;
import org.eclipse.angus.mail.smtp.SMTPAddressFailedException;
import org.eclipse.angus.mail.smtp.SMTPSendFailedException;
import org.eclipse.angus.mail.smtp.SMTPSenderFailedException;
import org.eclipse.angus.mail.smtp.SMTPTransport;
import org.springframework.mail.MailAuthenticationException;
import org.springframework.mail.MailException;
import org.springframework.mail.MailSendException;
import org.springframework.mail.javamail.JavaMailSenderImpl;

/** Hands letters to a mail server (RFC 5321). */
final class SmtpMailer implements Mailer {

    /** Replies from here on are for good (RFC 5321, 4.2.1). */
    private static final int PERMANENT = 500;
    private static final int USUAL_PORT = 25;
    private static final String STARTTLS = "mail.smtp.starttls.";

    private final JavaMailSenderImpl sender;
    /** The same for addresses that need SMTPUTF8: headers and addresses go as they are, which other letters are spared. */
    private final JavaMailSenderImpl utf8;
    private final String from;
    private final Supplier<LetterLook> look;

    SmtpMailer(JavaMailSenderImpl sender, String from, Supplier<LetterLook> look) {
        this.sender = sender;
        this.from = from;
        this.look = look;
        Properties asked = sender.getJavaMailProperties();
        if (asked != null && Boolean.parseBoolean(asked.getProperty(STARTTLS + "enable"))) {
            // Whoever asks for TLS means it: a server, or somebody in between, that does not offer it gets neither the password nor the letter.
            asked.putIfAbsent(STARTTLS + "required", "true");
        }
        this.utf8 = new JavaMailSenderImpl();
        utf8.setProtocol(Optional.ofNullable(sender.getProtocol()).orElse(JavaMailSenderImpl.DEFAULT_PROTOCOL));
        utf8.setHost(sender.getHost());
        utf8.setPort(sender.getPort());
        utf8.setUsername(sender.getUsername());
        utf8.setPassword(sender.getPassword());
        Properties more = new Properties();
        if (asked != null) {
            more.putAll(asked);
        }
        more.setProperty("mail.mime.allowutf8", "true");
        utf8.setJavaMailProperties(more);
    }

    /** Asks the server what it can do (RFC 5321, 4.1.1.1). */
    @Override
    public Optional<Boolean> carriesUtf8() {
        try (Transport transport = utf8.getSession().getTransport(utf8.getProtocol())) {
            transport.connect(utf8.getHost(), utf8.getPort(), utf8.getUsername(), utf8.getPassword());
            return Optional.of(transport instanceof SMTPTransport smtp && smtp.supportsExtension("SMTPUTF8"));
        } catch (MessagingException away) {
            return Optional.empty();
        }
    }

    @Override
    public void send(OutgoingMail mail) throws MailTrouble {
        MimeMail message = null;
        boolean special = mail.to().address().needsUtf8() || mail.replyTo().address().needsUtf8();
        if (special && !carriesUtf8().orElse(true)) {
            throw new MailTrouble(MailTrouble.Kind.REFUSED, "address-not-carried", (mail.to().address().needsUtf8() ? mail.to() : mail.replyTo()).address().text());
        }
        JavaMailSenderImpl by = special ? utf8 : sender;
        try {
            message = new MimeMail(by.getSession(), mail, from, look.get());
            by.send(message);
        } catch (MailAuthenticationException locked) {
            throw new MailTrouble(MailTrouble.Kind.UNREACHABLE, "mail-sign-in");
        } catch (MailException refused) {
            throw trouble(refused, message != null && message.handedOver());
        } catch (MessagingException wrong) {
            throw MailTrouble.told(MailTrouble.Kind.REFUSED, wrong.getMessage());
        }
    }

    @Override
    public void check() throws MailTrouble {
        try {
            sender.testConnection();
        } catch (MessagingException wrong) {
            throw MailTrouble.remarked(ConnectionWords.of(wrong, server(), sender.getPort() > 0 ? sender.getPort() : USUAL_PORT));
        }
    }

    @Override
    public String server() {
        return String.valueOf(sender.getHost());
    }

    /** What the server replied decides; where it replied nothing it was not there. */
    private static MailTrouble trouble(Throwable thrown, boolean handedOver) {
        Deque<Throwable> open = new ArrayDeque<>(Set.of(thrown));
        Set<Throwable> seen = Collections.newSetFromMap(new IdentityHashMap<>());
        while (!open.isEmpty()) {
            Throwable next = open.pop();
            if (!seen.add(next)) {
                continue;
            }
            if (next instanceof SMTPAddressFailedException reply && reply.getReturnCode() > 0) {
                return replied(reply.getReturnCode(), reply);
            }
            if (next instanceof SMTPSendFailedException reply && reply.getReturnCode() > 0 && reply.getNextException() == null) {
                return replied(reply.getReturnCode(), reply);
            }
            if (next instanceof SMTPSenderFailedException reply) {
                return new MailTrouble(MailTrouble.Kind.UNREACHABLE, "mail-sender", MailTrouble.brief(reply.getMessage()));
            }
            if (next instanceof AddressException wrong) {
                return MailTrouble.told(MailTrouble.Kind.REFUSED, wrong.getMessage());
            }
            if (ConnectionWords.lacksTls(next)) {
                return new MailTrouble(MailTrouble.Kind.UNREACHABLE, "mail-no-tls");
            }
            if (next.getCause() != null) {
                open.push(next.getCause());
            }
            if (next instanceof MessagingException messaging && messaging.getNextException() != null) {
                open.push(messaging.getNextException());
            }
            if (next instanceof MailSendException several) {
                several.getFailedMessages().values().forEach(open::push);
            }
        }
        return handedOver ? new MailTrouble(MailTrouble.Kind.UNCERTAIN, "mail-broken-off") : new MailTrouble(MailTrouble.Kind.UNREACHABLE, "mail-silent");
    }

    private static MailTrouble replied(int code, Exception reply) {
        return MailTrouble.told(code >= PERMANENT ? MailTrouble.Kind.REFUSED : MailTrouble.Kind.LATER, reply.getMessage());
    }
}
