package oakbasket.server.mail;

import jakarta.activation.DataHandler;
import jakarta.mail.MessagingException;
import jakarta.mail.Part;
import jakarta.mail.Session;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MimeBodyPart;
import jakarta.mail.internet.MimeMultipart;
import jakarta.mail.util.ByteArrayDataSource;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UnsupportedEncodingException;
import java.net.IDN;
import java.nio.charset.StandardCharsets;
import java.util.Date;
import oakbasket.core.identity.Person;
import org.eclipse.angus.mail.smtp.SMTPMessage;

/** A letter as an internet message (RFC 5322, RFC 2045 to 2047), marked as made by a machine (RFC 3834). */
final class MimeMail extends SMTPMessage {

    private static final String UTF_8 = StandardCharsets.UTF_8.name();

    private final String id;
    private boolean handedOver;

    /**
     * Makes the message.
     *
     * @param from the address of the office
     * @param look how letters look
     */
    MimeMail(Session session, OutgoingMail mail, String from, LetterLook look) throws MessagingException {
        super(session);
        this.id = mail.id();
        setFrom(address(look.office(), from));
        String body = look.whole(mail.body());
        setRecipient(RecipientType.TO, address(mail.to()));
        setReplyTo(new InternetAddress[] {address(mail.replyTo())});
        setSubject(oneLine(mail.subject()), UTF_8);
        MimeMultipart words = new MimeMultipart("alternative", text(body, "plain"), text(HtmlPart.of(body, mail.language(), look.colour()), "html"));
        setContent(mail.calendar() == null ? words : new MimeMultipart("mixed", whole(words), calendar(mail.calendar())));
        setSentDate(Date.from(mail.date()));
        setHeader("Content-Language", mail.language().getLanguage());
        setHeader("Auto-Submitted", mail.inReplyTo().isEmpty() ? "auto-generated" : "auto-replied");
        if (!mail.inReplyTo().isEmpty()) {
            setHeader("In-Reply-To", oneLine(mail.inReplyTo()));
            setHeader("References", oneLine(mail.inReplyTo()));
        }
        if (!mail.bounceTo().isEmpty()) {
            setEnvelopeFrom(mail.bounceTo());
        }
        // Exchange and what came after it look for this instead (Microsoft, MS-OXCMAIL 2.2.3.2.14).
        setHeader("X-Auto-Response-Suppress", "OOF, AutoReply");
        saveChanges();
    }

    private static MimeBodyPart text(String words, String kind) throws MessagingException {
        MimeBodyPart part = new MimeBodyPart();
        part.setText(words, UTF_8, kind);
        return part;
    }

    private static MimeBodyPart whole(MimeMultipart parts) throws MessagingException {
        MimeBodyPart part = new MimeBodyPart();
        part.setContent(parts);
        return part;
    }

    /** As RFC 6047 has it for what is published; a file of that name for programs that know no such part. */
    private static MimeBodyPart calendar(String object) throws MessagingException {
        MimeBodyPart part = new MimeBodyPart();
        part.setDataHandler(new DataHandler(new ByteArrayDataSource(object.getBytes(StandardCharsets.UTF_8), "text/calendar; charset=utf-8; method=PUBLISH")));
        part.setDisposition(Part.ATTACHMENT);
        part.setFileName("deadline.ics");
        return part;
    }

    /** Notes that all of it was handed over: from then on the server may have taken it, whatever becomes of the connection. */
    @Override
    public void writeTo(OutputStream out, String[] without) throws IOException, MessagingException {
        super.writeTo(out, without);
        handedOver = true;
    }

    /** Whether all of it was handed over. */
    boolean handedOver() {
        return handedOver;
    }

    @Override
    protected void updateMessageID() throws MessagingException {
        setHeader("Message-ID", "<" + id + ">");
    }

    /** A header ends with its line; nothing that somebody typed may begin another one. */
    private static String oneLine(String text) {
        return text.replaceAll("[\\p{Cc}\\u2028\\u2029]+", " ");
    }

    private static InternetAddress address(Person person) throws MessagingException {
        return address(person.name(), person.address().text());
    }

    private static InternetAddress address(String name, String address) throws MessagingException {
        int at = address.lastIndexOf('@');
        try {
            String plain = address.substring(0, at + 1) + IDN.toASCII(address.substring(at + 1));
            return new InternetAddress(plain, oneLine(name), UTF_8);
        } catch (UnsupportedEncodingException | IllegalArgumentException wrong) {
            throw new MessagingException("Not an address: " + address, wrong);
        }
    }
}
