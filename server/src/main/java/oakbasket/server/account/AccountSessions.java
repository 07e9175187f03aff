package oakbasket.server.account;

import java.time.Instant;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Hash;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.session.Session;
import org.springframework.stereotype.Component;

/** The sessions of coordinators: which live, and ending them. */
@Component
public class AccountSessions {

    /** What a session keeps besides its account: which browser it is in. */
    static final String BROWSER = "browser";
    /** And who asked for it. */
    static final String CALLER = "caller";

    /**
     * A session of an account.
     *
     * @param handle stands for it; lets nobody in
     * @param browser in words; empty when nothing is known
     */
    record Living(String handle, Instant since, Instant lastAt, String browser, String caller, boolean own) {
    }

    /** A session was ended by somebody. */
    public record Ended(String sessionId) {
    }

    private final FindByIndexNameSessionRepository<? extends Session> sessions;
    private final ApplicationEventPublisher events;

    AccountSessions(FindByIndexNameSessionRepository<? extends Session> sessions, ApplicationEventPublisher events) {
        this.sessions = sessions;
        this.events = events;
    }

    /** Whether a session still lives. */
    public boolean lives(String sessionId) {
        return sessions.findById(sessionId) != null;
    }

    /** Tells that a session was ended. */
    void ended(String id) {
        events.publishEvent(new Ended(id));
    }

    /** The sessions of an account, the last used first. @param own the id of the one that asks */
    List<Living> of(long account, String own) {
        return sessions.findByPrincipalName(Long.toString(account)).values().stream().filter(one -> !one.isExpired())
                .map(one -> new Living(handle(one.getId()), one.getCreationTime(), one.getLastAccessedTime(), one.getAttributeOrDefault(BROWSER, ""), one.getAttributeOrDefault(CALLER, ""), one.getId().equals(own)))
                .sorted(Comparator.comparing(Living::lastAt).reversed()).toList();
    }

    /**
     * Ends one session of an account.
     *
     * @throws Problem with status 404 when it has none such
     */
    void end(long account, String handle) {
        String id = sessions.findByPrincipalName(Long.toString(account)).keySet().stream().filter(one -> handle(one).equals(handle)).findFirst().orElseThrow(() -> Problem.notFound("no-session"));
        sessions.deleteById(id);
        events.publishEvent(new Ended(id));
    }

    private static String handle(String id) {
        return HexFormat.of().formatHex(Hash.of("handle " + id), 0, 8);
    }

    /** Ends all sessions of an account. */
    public void endAll(long account) {
        endOthers(account, "");
    }

    /** Ends all sessions of an account but one. */
    void endOthers(long account, String kept) {
        for (String id : sessions.findByPrincipalName(Long.toString(account)).keySet()) {
            if (!id.equals(kept)) {
                sessions.deleteById(id);
                events.publishEvent(new Ended(id));
            }
        }
    }
}
