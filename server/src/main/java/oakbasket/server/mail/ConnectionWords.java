package oakbasket.server.mail;

import jakarta.mail.AuthenticationFailedException;
import jakarta.mail.FolderNotFoundException;
import jakarta.mail.MessagingException;
import java.net.ConnectException;
import java.net.SocketTimeoutException;
import java.net.UnknownHostException;
import java.util.ArrayDeque;
import java.util.Collections;
import java.util.Deque;
import java.util.IdentityHashMap;
import java.util.Set;
import java.util.regex.Pattern;
import javax.net.ssl.SSLException;
import oakbasket.core.fault.Remark;

/** Says in words what is wrong with the way to a mail server. */
public final class ConnectionWords {

    private static final Pattern NO_TLS = Pattern.compile("STARTTLS is required");

    private ConnectionWords() {
    }

    /**
     * What an exception means.
     *
     * @param server the machine that was called
     */
    public static Remark of(Throwable thrown, String server, int port) {
        Deque<Throwable> open = new ArrayDeque<>(Set.of(thrown));
        Set<Throwable> seen = Collections.newSetFromMap(new IdentityHashMap<>());
        while (!open.isEmpty()) {
            Throwable next = open.pop();
            if (!seen.add(next)) {
                continue;
            }
            if (lacksTls(next)) {
                return Remark.of("connect-no-tls", server);
            }
            if (next instanceof UnknownHostException) {
                return Remark.of("connect-name", server);
            }
            if (next instanceof ConnectException) {
                return Remark.of("connect-refused", server, String.valueOf(port));
            }
            if (next instanceof SocketTimeoutException) {
                return Remark.of("connect-silent", server, String.valueOf(port));
            }
            if (next instanceof SSLException tls) {
                return Remark.of("connect-tls", server, MailTrouble.brief(tls.getMessage()));
            }
            if (next instanceof AuthenticationFailedException refused) {
                return Remark.of("connect-sign-in", server, MailTrouble.brief(refused.getMessage()));
            }
            if (next instanceof FolderNotFoundException folder) {
                return Remark.of("connect-folder", MailTrouble.brief(folder.getMessage()));
            }
            if (next.getCause() != null) {
                open.add(next.getCause());
            }
            if (next instanceof MessagingException messaging && messaging.getNextException() != null) {
                open.add(messaging.getNextException());
            }
        }
        return Remark.of("connect-other", server, MailTrouble.brief(thrown.getMessage()));
    }

    /** Whether a server does not offer the TLS that is asked for. The library knows no class of its own for that. */
    static boolean lacksTls(Throwable thrown) {
        return thrown instanceof MessagingException && NO_TLS.matcher(String.valueOf(thrown.getMessage())).find();
    }
}
