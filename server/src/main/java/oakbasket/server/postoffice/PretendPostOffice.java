package oakbasket.server.postoffice;

import com.icegreen.greenmail.Managers;
import com.icegreen.greenmail.imap.ImapServer;
import com.icegreen.greenmail.mail.MailAddress;
import com.icegreen.greenmail.mail.MovingMessage;
import com.icegreen.greenmail.server.AbstractServer;
import com.icegreen.greenmail.user.GreenMailUser;
import com.icegreen.greenmail.user.UserException;
import com.icegreen.greenmail.user.UserManager;
import com.icegreen.greenmail.util.ServerSetup;
import jakarta.mail.BodyPart;
import jakarta.mail.MessagingException;
import jakarta.mail.Multipart;
import jakarta.mail.Part;
import jakarta.mail.Session;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MimeMessage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Properties;
import java.util.concurrent.ConcurrentHashMap;
import oakbasket.server.Settings;
import oakbasket.server.words.Words;
import org.springframework.beans.factory.DisposableBean;

/** Runs the servers, and keeps what invented people got, newest first. */
final class PretendPostOffice implements DisposableBean {

    /** A letter that somebody got. */
    record Got(long id, String to, String from, String returnPath, String subject, Instant at, String text, String html, List<String> attachments, byte[] raw) {
    }

    static final String COLLECTOR = "collector";
    private static final int MOST_KEPT = 2_000;
    private static final String LOOPBACK = "127.0.0.1";

    private final Managers managers = new Managers();
    private final MoodyServer smtp;
    private final ImapServer imap;
    private final GreenMailUser collector;
    private final Map<String, Mood> moods = new ConcurrentHashMap<>();
    private final Deque<Got> got = new ArrayDeque<>();
    private final PretendWriter writer;
    private final Settings settings;
    private final Clock clock;
    private long last;

    PretendPostOffice(Settings settings, Words words, Clock clock) {
        this.settings = settings;
        this.clock = clock;
        this.writer = new PretendWriter(words, clock);
        this.smtp = new MoodyServer(new ServerSetup(0, LOOPBACK, ServerSetup.PROTOCOL_SMTP), managers, words, address -> moods.getOrDefault(address, Mood.TAKE));
        this.imap = new ImapServer(new ServerSetup(0, LOOPBACK, ServerSetup.PROTOCOL_IMAP), managers);
        UserManager users = managers.getUserManager();
        try {
            this.collector = users.createUser(settings.collecting().isEmpty() ? COLLECTOR + "@localhost" : settings.collecting(), COLLECTOR, COLLECTOR);
        } catch (UserException impossible) {
            throw new IllegalStateException(impossible);
        }
        users.setMessageDeliveryHandler(this::arrived);
        smtp.startService();
        imap.startService();
        await(smtp);
        await(imap);
    }

    private static void await(AbstractServer server) {
        try {
            if (!server.waitTillRunning(ServerSetup.SERVER_STARTUP_TIMEOUT)) {
                throw new IllegalStateException("The pretend post office does not start");
            }
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
        }
    }

    int smtpPort() {
        return smtp.getPort();
    }

    int imapPort() {
        return imap.getPort();
    }

    String host() {
        return LOOPBACK;
    }

    Map<String, Mood> moods() {
        return moods;
    }

    /** Everything somebody got, newest first. */
    synchronized List<Got> got() {
        return new ArrayList<>(got);
    }

    synchronized Optional<Got> got(long id) {
        return got.stream().filter(one -> one.id() == id).findFirst();
    }

    /** Puts a message into the mailbox that the office reads. */
    void post(MimeMessage message) throws MessagingException {
        collector.deliver(message);
    }

    private GreenMailUser arrived(MovingMessage moving, MailAddress to) throws MessagingException, UserException {
        String address = to.getEmail().toLowerCase(Locale.ROOT);
        if (isOurs(address)) {
            return collector;
        }
        Got letter = keep(moving, address);
        if (moods.getOrDefault(address, Mood.TAKE) == Mood.BOUNCE) {
            post(writer.bounce(letter));
        }
        GreenMailUser known = managers.getUserManager().getUserByEmail(address);
        return known != null ? known : managers.getUserManager().createUser(address, address, address);
    }

    private boolean isOurs(String address) {
        String collecting = settings.collecting().toLowerCase(Locale.ROOT);
        int at = collecting.lastIndexOf('@');
        return at > 0 && (address.equals(collecting) || address.startsWith(collecting.substring(0, at) + "+") && address.endsWith(collecting.substring(at)));
    }

    private synchronized Got keep(MovingMessage moving, String to) throws MessagingException {
        MimeMessage message = moving.getMessage();
        StringBuilder text = new StringBuilder();
        StringBuilder html = new StringBuilder();
        List<String> attachments = new ArrayList<>();
        ByteArrayOutputStream raw = new ByteArrayOutputStream();
        try {
            message.writeTo(raw);
            read(new MimeMessage(Session.getInstance(new Properties()), new ByteArrayInputStream(raw.toByteArray())), text, html, attachments);
        } catch (IOException unreadable) {
            text.append(unreadable.getMessage());
        }
        String from = message.getFrom() == null ? "" : ((InternetAddress) message.getFrom()[0]).getAddress();
        Got letter = new Got(++last, to, from, moving.getReturnPath() == null ? "" : moving.getReturnPath().getEmail(), String.valueOf(message.getSubject()), clock.instant(), text.toString(), html.toString(), attachments,
                raw.toByteArray());
        got.addFirst(letter);
        while (got.size() > MOST_KEPT) {
            got.removeLast();
        }
        return letter;
    }

    private static void read(Part part, StringBuilder text, StringBuilder html, List<String> attachments) throws MessagingException, IOException {
        if (part.getFileName() != null) {
            attachments.add(part.getFileName());
        } else if (part.isMimeType("multipart/*")) {
            Multipart several = (Multipart) part.getContent();
            for (int i = 0; i < several.getCount(); i++) {
                BodyPart one = several.getBodyPart(i);
                read(one, text, html, attachments);
            }
        } else if (part.isMimeType("text/plain")) {
            text.append(part.getContent());
        } else if (part.isMimeType("text/html")) {
            html.append(part.getContent());
        }
    }

    PretendWriter writer() {
        return writer;
    }

    @Override
    public void destroy() {
        smtp.stopService();
        imap.stopService();
    }
}
