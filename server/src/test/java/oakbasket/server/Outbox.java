package oakbasket.server;

import jakarta.mail.MessagingException;
import jakarta.mail.Multipart;
import jakarta.mail.Part;
import jakarta.mail.Session;
import jakarta.mail.internet.MimeMessage;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Properties;
import java.util.stream.Stream;

/** The letters that the stand-in for a mail server took, read by the mail library as any mail program would. */
final class Outbox {

    private Outbox() {
    }

    /** Letters to this name, in the order they went. */
    static List<MimeMessage> to(String name) {
        try (Stream<Path> files = Files.list(RunningApp.DATA.resolve("outbox"))) {
            return files.filter(file -> file.toString().endsWith(".eml")).sorted(java.util.Comparator.comparingLong(Outbox::number).thenComparingLong(Outbox::written)).map(Outbox::read)
                    .filter(mail -> header(mail, "To").contains(name)).toList();
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    static String text(MimeMessage mail) {
        try {
            return ((String) part(mail, "text/plain").getContent()).replace("\r\n", "\n");
        } catch (IOException | MessagingException problem) {
            throw new IllegalStateException(problem);
        }
    }

    /** The first part of a kind, however deep it lies; null when there is none. */
    static Part part(Part within, String kind) {
        try {
            if (within.isMimeType(kind)) {
                return within;
            }
            if (within.isMimeType("multipart/*")) {
                Multipart all = (Multipart) within.getContent();
                for (int n = 0; n < all.getCount(); n++) {
                    Part found = part(all.getBodyPart(n), kind);
                    if (found != null) {
                        return found;
                    }
                }
            }
            return null;
        } catch (IOException | MessagingException problem) {
            throw new IllegalStateException(problem);
        }
    }

    static String header(MimeMessage mail, String name) {
        try {
            return String.valueOf(mail.getHeader(name, ", "));
        } catch (MessagingException problem) {
            throw new IllegalStateException(problem);
        }
    }

    static String subject(MimeMessage mail) {
        try {
            return mail.getSubject();
        } catch (MessagingException problem) {
            throw new IllegalStateException(problem);
        }
    }

    private static long number(Path file) {
        String[] parts = file.getFileName().toString().split("-");
        return parts[1].equals("letter") ? Long.parseLong(parts[2]) : 0;
    }

    /** Mail to senders has no number; the time in nanoseconds tells which came later. */
    private static long written(Path file) {
        try {
            return Files.getLastModifiedTime(file).to(java.util.concurrent.TimeUnit.NANOSECONDS);
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    private static MimeMessage read(Path file) {
        try (InputStream in = Files.newInputStream(file)) {
            return new MimeMessage(Session.getInstance(new Properties()), in);
        } catch (IOException | MessagingException problem) {
            throw new IllegalStateException(problem);
        }
    }
}
