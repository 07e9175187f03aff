package oakbasket.server;

import java.net.URI;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;

/**
 * The settings of an installation, all under {@code oakbasket.}.
 *
 * @param data the one folder that holds everything: database, keys, arriving bytes and the folders of received files
 * @param publicAddress where senders and coordinators reach this server; links begin with it; null means the address of each request
 * @param office the name senders see as the one who asks
 * @param zone the office's time zone, proposed for new rounds
 * @param clock a fixed instant to run at, for pictures and tests; null means the real time
 * @param clockTicks whether that instant is only where the clock begins; else it stands still
 * @param mailFrom the address letters come from; null means {@code letters@localhost}, which only the stand-in for a mail server takes
 * @param letterHold how long letters sent by hand, and invitations, can still be stopped
 * @param returnHold how long a return waits for further ones of the same basket before the person is told
 * @param connections how many connections are open at most; what is more is closed at once
 * @param connectionsPerCaller how many of them from one address; not counted behind a proxy, which has to do that itself
 * @param scanner where clamd listens, as {@code host:port} or the path of its socket; empty means the stand-in, which knows only a test file
 * @param scannerPatience how long clamd may take for one file
 * @param collectingAddress the address that people send papers to by mail; null where none is read. Its mail server has to deliver what is sent to it with a plus sign and a mark, too
 * @param mailbox the mailbox of that address; null where none is read
 * @param postOffice whether a pretend mail server runs inside, for the demo; it reaches nobody
 * @param demo whether to fill an empty data folder with the demo scenario
 */
@ConfigurationProperties("oakbasket")
public record Settings(@DefaultValue("oak-basket-data") Path data, @Nullable URI publicAddress, @DefaultValue("Our office") String office,
        @DefaultValue("Europe/London") ZoneId zone, @Nullable Instant clock, @DefaultValue("false") boolean clockTicks, @Nullable String mailFrom,
        @DefaultValue("PT1M") Duration letterHold, @DefaultValue("PT10M") Duration returnHold, @DefaultValue("6000") int connections,
        @DefaultValue("256") int connectionsPerCaller, @DefaultValue("") String scanner, @DefaultValue("PT2M") Duration scannerPatience,
        @Nullable String collectingAddress, @Nullable MailboxSettings mailbox, @DefaultValue("false") boolean postOffice, @DefaultValue("false") boolean demo) {

    /** The address that stands on letters where none is set; only the stand-in for a mail server takes it. */
    private static final String NOBODY = "letters@localhost";

    /**
     * A mailbox that is read by IMAP (RFC 9051).
     *
     * @param port null for the usual one: 993, or 143 where the connection begins in the clear
     * @param security {@code TLS}, {@code STARTTLS} or, within one machine, {@code NONE}
     * @param mechanism empty for a password; {@code XOAUTH2} where {@code password} or {@code tokenFile} holds a bearer token
     * @param tokenFile a file that holds the password or token and is read anew each time, since tokens are renewed; null where {@code password} does
     * @param folder what is read
     * @param done where messages go that were dealt with; empty to leave them there, marked as seen
     * @param serverId the name under which the mail server says who a message comes from (RFC 8601, authserv-id); empty where it says nothing that can be trusted
     */
    public record MailboxSettings(String host, @Nullable Integer port, @DefaultValue("TLS") String security, String user, @DefaultValue("") String password, @Nullable Path tokenFile,
            @DefaultValue("") String mechanism, @DefaultValue("INBOX") String folder, @DefaultValue("") String done, @DefaultValue("") String serverId) {
    }

    /** The address that collects papers; empty where none does. */
    public String collecting() {
        return collectingAddress == null ? "" : collectingAddress;
    }

    /** The address letters come from. */
    public String letterSender() {
        return mailFrom == null ? NOBODY : mailFrom;
    }

    /** Whether people reach this server by https, which a proxy may end before it. */
    public boolean https() {
        return publicAddress != null && "https".equalsIgnoreCase(publicAddress.getScheme());
    }
}
