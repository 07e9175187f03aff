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
import javax.net.ssl.SSLException;
import oakbasket.core.fault.Remark;

/** Says in words what is wrong with the way to a mail server. */
public final class ConnectionWords {

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
}
