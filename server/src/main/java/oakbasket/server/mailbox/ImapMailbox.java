package oakbasket.server.mailbox;

import jakarta.mail.FetchProfile;
import jakarta.mail.Flags;
import jakarta.mail.Folder;
import jakarta.mail.Message;
import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.Store;
import jakarta.mail.UIDFolder;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.util.HashMap;
import java.util.Map;
import java.util.Properties;
import java.util.stream.Stream;
import oakbasket.core.fault.Remark;
import oakbasket.server.Settings.MailboxSettings;
import oakbasket.server.mail.ConnectionWords;
import org.eclipse.angus.mail.imap.IMAPMessage;

/** Reads a mailbox by IMAP (RFC 9051). Messages are known by their numbers and not by whether they were seen, so that somebody who looks into the mailbox takes nothing away from us. */
final class ImapMailbox implements Mailbox {

    private static final String MILLISECONDS = "20000";
    private static final String FETCH_BYTES = "262144";
    private static final int MOST_TRIES = 5;
    private static final int TLS_PORT = 993;
    private static final int PLAIN_PORT = 143;

    private final MailboxSettings settings;
    private final String protocol;
    private final int port;
    private final Session session;
    /** How often messages could not be read, by their numbers. */
    private final Map<Long, Integer> failed = new HashMap<>();

    ImapMailbox(MailboxSettings settings) {
        this.settings = settings;
        boolean tls = settings.security().equalsIgnoreCase("TLS");
        this.protocol = tls ? "imaps" : "imap";
        Integer own = settings.port();
        this.port = own != null ? own : tls ? TLS_PORT : PLAIN_PORT;
        Properties properties = new Properties();
        String mine = "mail." + protocol + ".";
        properties.setProperty(mine + "connectiontimeout", MILLISECONDS);
        properties.setProperty(mine + "timeout", MILLISECONDS);
        properties.setProperty(mine + "writetimeout", MILLISECONDS);
        properties.setProperty(mine + "ssl.checkserveridentity", "true");
        properties.setProperty(mine + "peek", "true");
        properties.setProperty(mine + "fetchsize", FETCH_BYTES);
        if (settings.security().equalsIgnoreCase("STARTTLS")) {
            properties.setProperty(mine + "starttls.enable", "true");
            properties.setProperty(mine + "starttls.required", "true");
        }
        if (!settings.mechanism().isEmpty()) {
            properties.setProperty(mine + "auth.mechanisms", settings.mechanism());
        }
        this.session = Session.getInstance(properties);
    }

    @Override
    public void read(Taken taken, Taker taker, int most) throws MailboxTrouble {
        try (Store store = open()) {
            Folder folder = store.getFolder(settings.folder());
            folder.open(Folder.READ_WRITE);
            try {
                UIDFolder numbers = (UIDFolder) folder;
                String key = settings.host() + "/" + settings.user() + "/" + settings.folder() + "/" + numbers.getUIDValidity();
                long last = taken.last(key);
                // A server answers a range that ends with the last message with that message, also where its number is smaller (RFC 9051, 9, seq-range).
                Message[] fresh = Stream.of(numbers.getMessagesByUID(last + 1, UIDFolder.LASTUID)).limit(most + 1L).toArray(Message[]::new);
                FetchProfile sizes = new FetchProfile();
                sizes.add(FetchProfile.Item.SIZE);
                folder.fetch(fresh, sizes);
                for (Message message : fresh) {
                    long number = numbers.getUID(message);
                    if (number > last) {
                        take(taker, key, number, message);
                        done(store, folder, message);
                    }
                }
            } finally {
                folder.close(!settings.done().isEmpty());
            }
        } catch (MessagingException | IOException wrong) {
            throw new MailboxTrouble(ConnectionWords.of(wrong, settings.host(), port), wrong);
        }
    }

    /** A message that the server cannot give must not keep those behind it for ever: after some tries it is taken as an empty one. */
    private void take(Taker taker, String key, long number, Message message) throws MessagingException, IOException {
        try (InputStream in = ((IMAPMessage) message).getMimeStream()) {
            taker.take(key, number, message.getSize(), in);
            failed.remove(number);
        } catch (MessagingException | IOException broken) {
            if (failed.merge(number, 1, Integer::sum) < MOST_TRIES || !message.getFolder().isOpen()) {
                throw broken;
            }
            taker.take(key, number, 0, InputStream.nullInputStream());
            failed.remove(number);
        }
    }

    private void done(Store store, Folder folder, Message message) throws MessagingException {
        message.setFlag(Flags.Flag.SEEN, true);
        if (!settings.done().isEmpty()) {
            Folder done = store.getFolder(settings.done());
            if (!done.exists()) {
                done.create(Folder.HOLDS_MESSAGES);
            }
            folder.copyMessages(new Message[] {message}, done);
            message.setFlag(Flags.Flag.DELETED, true);
        }
    }

    @Override
    public void check() throws MailboxTrouble {
        try (Store store = open()) {
            Folder folder = store.getFolder(settings.folder());
            if (!folder.exists()) {
                throw new MailboxTrouble(Remark.of("connect-folder", settings.folder()), new MessagingException(settings.folder()));
            }
        } catch (MessagingException | IOException wrong) {
            throw new MailboxTrouble(ConnectionWords.of(wrong, settings.host(), port), wrong);
        }
    }

    private Store open() throws MessagingException, IOException {
        Store store = session.getStore(protocol);
        String secret = settings.tokenFile() == null ? settings.password() : Files.readString(settings.tokenFile()).strip();
        store.connect(settings.host(), port, settings.user(), secret);
        return store;
    }
}
