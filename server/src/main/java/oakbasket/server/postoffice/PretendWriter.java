package oakbasket.server.postoffice;

import jakarta.activation.DataHandler;
import jakarta.mail.Message;
import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MimeBodyPart;
import jakarta.mail.internet.MimeMessage;
import jakarta.mail.internet.MimeMultipart;
import jakarta.mail.util.ByteArrayDataSource;
import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.Date;
import java.util.Properties;
import oakbasket.server.words.Words;

/** Writes as invented people, their programs and other mail servers would. */
final class PretendWriter {

    private static final String DEFAULT_TYPE = "application/octet-stream";

    private final Session session = Session.getInstance(new Properties());
    private final Words words;
    private final Clock clock;

    PretendWriter(Words words, Clock clock) {
        this.words = words;
        this.clock = clock;
    }

    /**
     * An answer to a letter.
     *
     * @param name what is attached is called; empty for nothing
     * @param automatic whether a program writes it, which says that its person is away
     */
    MimeMessage answer(PretendPostOffice.Got letter, String text, String name, byte[] attached, boolean automatic) throws MessagingException {
        MimeMessage original = new MimeMessage(session, new ByteArrayInputStream(letter.raw()));
        MimeMessage answer = new MimeMessage(session);
        answer.setFrom(new InternetAddress(letter.to()));
        answer.setRecipients(Message.RecipientType.TO, original.getReplyTo());
        answer.setSubject("Re: " + letter.subject(), StandardCharsets.UTF_8.name());
        answer.setSentDate(Date.from(clock.instant()));
        answer.setHeader("In-Reply-To", original.getMessageID());
        if (automatic) {
            answer.setHeader("Auto-Submitted", "auto-replied");
        }
        MimeBodyPart written = new MimeBodyPart();
        written.setText(text, StandardCharsets.UTF_8.name());
        MimeMultipart whole = new MimeMultipart(written);
        if (!name.isEmpty()) {
            MimeBodyPart file = new MimeBodyPart();
            file.setDataHandler(new DataHandler(new ByteArrayDataSource(attached, DEFAULT_TYPE)));
            file.setFileName(name);
            whole.addBodyPart(file);
        }
        answer.setContent(whole);
        answer.saveChanges();
        return answer;
    }

    /** A report that a letter cannot be delivered (RFC 3464; RFC 6522 for its shape), sent to where the letter said that reports go. */
    MimeMessage bounce(PretendPostOffice.Got letter) throws MessagingException {
        MimeMessage report = new MimeMessage(session);
        report.setFrom(new InternetAddress("MAILER-DAEMON@mx.example.org"));
        report.setRecipient(Message.RecipientType.TO, new InternetAddress(letter.returnPath().isEmpty() ? letter.from() : letter.returnPath()));
        report.setSubject(words.of("post-office.bounce"));
        report.setSentDate(Date.from(clock.instant()));
        report.setHeader("Auto-Submitted", "auto-replied");
        String said = words.of("post-office.unknown");
        MimeBodyPart written = new MimeBodyPart();
        written.setText("<" + letter.to() + ">: " + said);
        MimeBodyPart status = new MimeBodyPart();
        String fields = "Reporting-MTA: dns; mx.example.org\r\n\r\nFinal-Recipient: rfc822; " + letter.to() + "\r\nAction: failed\r\nStatus: 5.1.1\r\nDiagnostic-Code: smtp; " + said + "\r\n";
        status.setDataHandler(new DataHandler(new ByteArrayDataSource(fields.getBytes(StandardCharsets.US_ASCII), "message/delivery-status")));
        MimeBodyPart returned = new MimeBodyPart();
        String raw = new String(letter.raw(), StandardCharsets.ISO_8859_1);
        int end = raw.indexOf("\r\n\r\n");
        returned.setDataHandler(new DataHandler(new ByteArrayDataSource((end < 0 ? raw : raw.substring(0, end + 2)).getBytes(StandardCharsets.ISO_8859_1), "text/rfc822-headers")));
        MimeMultipart whole = new MimeMultipart("report; report-type=delivery-status", written, status, returned);
        report.setContent(whole);
        report.saveChanges();
        return report;
    }
}
