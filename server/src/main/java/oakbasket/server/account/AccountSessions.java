package oakbasket.server.account;

import org.springframework.context.ApplicationEventPublisher;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.session.Session;
import org.springframework.stereotype.Component;

/** The sessions of coordinators: which live, and ending them. */
@Component
public class AccountSessions {

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
