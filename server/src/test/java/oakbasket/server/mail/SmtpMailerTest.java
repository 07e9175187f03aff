package oakbasket.server.mail;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetupTest;
import jakarta.mail.MessagingException;
import jakarta.mail.Multipart;
import jakarta.mail.Session;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MimeMessage;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.ConnectException;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import org.eclipse.angus.mail.smtp.SMTPAddressFailedException;
import org.eclipse.angus.mail.smtp.SMTPSendFailedException;
import org.eclipse.angus.mail.smtp.SMTPSenderFailedException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.mail.MailAuthenticationException;
import org.springframework.mail.MailSendException;
import org.springframework.mail.javamail.JavaMailSenderImpl;

/** What a mail server may answer, on command; and that nothing typed by people becomes a header of its own, over a real conversation. */
class SmtpMailerTest {

    private static final Person ADA = new Person("Ada Brook", new MailAddress("ada@example.org"));
    private static final InternetAddress HER = address();

    private static InternetAddress address() {
        try {
            return new InternetAddress("ada@example.org");
        } catch (MessagingException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    private static OutgoingMail mail(String subject, String body) {
        return new OutgoingMail("one@oak.example.org", ADA, ADA, subject, body, Instant.parse("2026-06-01T09:00:00Z"));
    }

    /** Source: RFC 5321, 4.2.1: replies from 500 on are for good, those of the 400s for now. */
    @ParameterizedTest(name = "{0} {1}: {2}")
    @CsvSource({"RECIPIENT, 550, REFUSED", "RECIPIENT, 553, REFUSED", "RECIPIENT, 450, LATER", "RECIPIENT, 421, LATER", "MESSAGE, 554, REFUSED", "MESSAGE, 452, LATER", "SENDER, 550, UNREACHABLE",
        "SIGN_IN, 535, UNREACHABLE", "NOBODY, 0, UNREACHABLE"})
    void eachAnswerHasItsRule(String what, int code, MailTrouble.Kind kind) {
        JavaMailSenderImpl sender = mock(JavaMailSenderImpl.class);
        when(sender.getSession()).thenReturn(Session.getInstance(new Properties()));
        Exception answer = switch (what) {
            case "RECIPIENT" -> new SMTPAddressFailedException(HER, "RCPT TO", code, code + " told by the server");
            case "MESSAGE" -> new SMTPSendFailedException("DATA", code, code + " told by the server", null, null, null, null);
            case "SENDER" -> new SMTPSenderFailedException(HER, "MAIL FROM", code, code + " told by the server");
            default -> new MessagingException("Could not connect", new ConnectException("refused"));
        };
        RuntimeException thrown = what.equals("SIGN_IN") ? new MailAuthenticationException("535 no") : new MailSendException(Collections.singletonMap("mail", answer));
        doThrow(thrown).when(sender).send(any(MimeMessage.class));
        MailTrouble trouble = catchThrowableOfType(MailTrouble.class, () -> new SmtpMailer(sender, "office@example.org", () -> new LetterLook("Office", "", "")).send(mail("Hello", "Hello")));
        assertThat(trouble.kind()).isEqualTo(kind);
        assertThat(trouble.getMessage()).isNotBlank();
    }

    /** Where a server hangs or breaks off decides whether the letter may have gone: from the end of its text on it may (RFC 5321, 6.1). */
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({"HANG_AT_GREETING, UNREACHABLE", "CLOSE_AT_GREETING, UNREACHABLE", "CLOSE_AT_RCPT, UNREACHABLE", "HANG_AT_RCPT, UNREACHABLE", "CLOSE_AT_DATA, UNREACHABLE", "CLOSE_AT_END, UNCERTAIN", "HANG_AT_END, UNCERTAIN"})
    void aServerThatHangsOrBreaksOffIsToldByWhere(String what, MailTrouble.Kind kind) throws Exception {
        String at = what.substring(what.lastIndexOf('_') + 1);
        try (ServerSocket server = new ServerSocket(0)) {
            Thread serving = new Thread(() -> serve(server, at, what.startsWith("HANG")));
            serving.setDaemon(true);
            serving.start();
            JavaMailSenderImpl sender = new JavaMailSenderImpl();
            sender.setHost("127.0.0.1");
            sender.setPort(server.getLocalPort());
            sender.getJavaMailProperties().setProperty("mail.smtp.timeout", "500");
            MailTrouble trouble = catchThrowableOfType(MailTrouble.class, () -> new SmtpMailer(sender, "office@example.org", () -> new LetterLook("Office", "", "")).send(mail("Hello", "Hello")));
            assertThat(trouble.kind()).isEqualTo(kind);
        }
    }

    private static void serve(ServerSocket server, String at, boolean hang) {
        try (Socket caller = server.accept(); BufferedReader in = new BufferedReader(new InputStreamReader(caller.getInputStream(), StandardCharsets.US_ASCII))) {
            boolean text = false;
            for (String line = "GREETING"; line != null; line = in.readLine()) {
                String where = text ? line.equals(".") ? "END" : "TEXT" : line.split("[ :]")[0];
                if (where.equals(at)) {
                    Thread.sleep(hang ? 2_000 : 0);
                    return;
                }
                text = text ? !line.equals(".") : line.equals("DATA");
                String reply = where.equals("TEXT") ? "" : line.equals("GREETING") ? "220 here\r\n" : line.equals("DATA") ? "354 go on\r\n" : "250 fine\r\n";
                caller.getOutputStream().write(reply.getBytes(StandardCharsets.US_ASCII));
            }
        } catch (IOException | InterruptedException gone) {
            Thread.currentThread().interrupt();
        }
    }

    /** Source: RFC 3207, 5: whoever asked for TLS must not go on without it, or somebody in between takes it away. This server offers none. */
    @Test
    void whereTlsIsAskedForAServerWithoutItGetsNothing() throws Exception {
        try (ServerSocket server = new ServerSocket(0)) {
            Thread serving = new Thread(() -> serve(server, "NEVER", false));
            serving.setDaemon(true);
            serving.start();
            JavaMailSenderImpl sender = new JavaMailSenderImpl();
            sender.setHost("127.0.0.1");
            sender.setPort(server.getLocalPort());
            sender.getJavaMailProperties().setProperty("mail.smtp.starttls.enable", "true");
            SmtpMailer mailer = new SmtpMailer(sender, "office@example.org", () -> new LetterLook("Office", "", ""));
            MailTrouble trouble = catchThrowableOfType(MailTrouble.class, () -> mailer.send(mail("Hello", "Hello")));
            assertThat(trouble.kind()).isEqualTo(MailTrouble.Kind.UNREACHABLE);
            assertThat(trouble.reason().code()).isEqualTo("mail-no-tls");
        }
    }

    /** Sources: RFC 5322 §2.2 (a header ends with its line), RFC 5321 §4.5.2 (a line with one dot ends a message), RFC 2047. */
    @Test
    void nothingTypedBecomesAHeaderOrEndsTheMessage() throws Exception {
        GreenMail green = new GreenMail(ServerSetupTest.SMTP.dynamicPort());
        green.start();
        try {
            JavaMailSenderImpl sender = new JavaMailSenderImpl();
            sender.setHost("127.0.0.1");
            sender.setPort(green.getSmtp().getPort());
            String evil = "\r\nBcc: evil@example.org\r\nX-Evil: 1";
            for (String end : List.of(evil, "\nBcc: evil@example.org", "\u2028Bcc: evil@example.org", "\u0085Bcc: evil@example.org", "\u0000Bcc: evil@example.org", " ü" + evil)) {
                new SmtpMailer(sender, "office@example.org", () -> new LetterLook("The office" + end, "", "")).send(mail("Papers" + end, "Hello\n.\nRCPT TO:<evil@example.org>\n..\nthe end" + end));
            }
            MimeMessage[] received = green.getReceivedMessages();
            assertThat(received).hasSize(6);
            for (MimeMessage message : received) {
                assertThat(message.getAllRecipients()).extracting(Object::toString).containsExactly("Ada Brook <ada@example.org>");
                assertThat(Collections.list(message.getAllHeaders())).extracting(header -> header.getName().toLowerCase()).doesNotContain("bcc", "x-evil");
                assertThat(message.getSubject()).startsWith("Papers").doesNotContain("\r", "\n", "\u2028", "\u0085", "\u0000");
                assertThat(((InternetAddress) message.getFrom()[0]).getPersonal()).startsWith("The office").doesNotContain("\r", "\n", "\u2028", "\u0085", "\u0000");
                Multipart parts = (Multipart) message.getContent();
                assertThat(((String) parts.getBodyPart(0).getContent()).replace("\r", "")).startsWith("Hello\n.\nRCPT TO:<evil@example.org>\n..\nthe end");
            }
            assertThat(Map.of("letters to somebody else", green.getReceivedMessagesForDomain("evil@example.org").length)).containsValue(0);
        } finally {
            green.stop();
        }
    }
}
