package oakbasket.server.mail;

import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Optional;
import java.util.Properties;
import java.util.function.Supplier;
import oakbasket.server.storage.DataFolder;

/** Stands in for a mail server: each letter becomes a file of the open format that mail programs read (.eml) in the folder {@code outbox}. */
final class FolderMailer implements Mailer {

    private final Path outbox;
    private final String from;
    private final Supplier<LetterLook> look;

    FolderMailer(Path outbox, String from, Supplier<LetterLook> look) {
        this.outbox = outbox;
        this.from = from;
        this.look = look;
    }

    @Override
    public void send(OutgoingMail mail) throws MailTrouble {
        String name = mail.id().substring(0, mail.id().indexOf('@')) + ".eml";
        try {
            Path part = outbox.resolve(name + ".part");
            try (OutputStream out = Files.newOutputStream(part)) {
                // Letters hold personal links.
                DataFolder.forTheServerAlone(part, "rw-------");
                new MimeMail(Session.getInstance(new Properties()), mail, from, look.get()).writeTo(out);
            }
            Files.move(part, outbox.resolve(name), StandardCopyOption.ATOMIC_MOVE);
        } catch (MessagingException wrong) {
            throw MailTrouble.told(MailTrouble.Kind.REFUSED, wrong.getMessage());
        } catch (IOException full) {
            throw new MailTrouble(MailTrouble.Kind.UNREACHABLE, "mail-folder", MailTrouble.brief(full.getMessage()));
        }
    }

    @Override
    public void check() throws MailTrouble {
        if (!Files.isWritable(outbox)) {
            throw new MailTrouble(MailTrouble.Kind.UNREACHABLE, "mail-folder", outbox.toString());
        }
    }

    @Override
    public Optional<Boolean> carriesUtf8() {
        return Optional.of(true);
    }

    @Override
    public String server() {
        return "";
    }
}
