package oakbasket.server.account;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.util.List;
import java.util.Optional;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.context.DeferredSecurityContext;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.core.context.SecurityContextImpl;
import org.springframework.security.web.context.HttpRequestResponseHolder;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.session.Session;
import org.springframework.stereotype.Component;

/** Who is signed in. A session keeps only the number of the account, so that it says what is true of the account now, and outlives a new version of this program. */
@Component
public class AccountSessions implements SecurityContextRepository {

    /** A session was ended by somebody. */
    public record Ended(String sessionId) {
    }

    private static final String ACCOUNT = FindByIndexNameSessionRepository.PRINCIPAL_NAME_INDEX_NAME;

    private final AccountTable accounts;
    private final FindByIndexNameSessionRepository<? extends Session> sessions;
    private final ApplicationEventPublisher events;

    AccountSessions(AccountTable accounts, FindByIndexNameSessionRepository<? extends Session> sessions, ApplicationEventPublisher events) {
        this.accounts = accounts;
        this.sessions = sessions;
        this.events = events;
    }

    /** Whether a session still lives. */
    public boolean lives(String sessionId) {
        return sessions.findById(sessionId) != null;
    }

    /** Ends one session. */
    void end(HttpSession session) {
        String id = session.getId();
        session.invalidate();
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

    @Override
    public DeferredSecurityContext loadDeferredContext(HttpServletRequest request) {
        return new DeferredSecurityContext() {
            private @org.jspecify.annotations.Nullable SecurityContext loaded;

            @Override
            public boolean isGenerated() {
                return get().getAuthentication() == null;
            }

            @Override
            public SecurityContext get() {
                if (loaded == null) {
                    loaded = signedIn(request).<SecurityContext>map(account -> new SecurityContextImpl(UsernamePasswordAuthenticationToken.authenticated(account, null, List.of())))
                            .orElseGet(SecurityContextHolder::createEmptyContext);
                }
                return loaded;
            }
        };
    }

    @Override
    @Deprecated
    public SecurityContext loadContext(HttpRequestResponseHolder holder) {
        return loadDeferredContext(holder.getRequest()).get();
    }

    @Override
    public void saveContext(SecurityContext context, HttpServletRequest request, HttpServletResponse response) {
        if (context.getAuthentication() != null && context.getAuthentication().getPrincipal() instanceof Account account) {
            request.getSession().setAttribute(ACCOUNT, Long.toString(account.id()));
        }
    }

    @Override
    public boolean containsContext(HttpServletRequest request) {
        return signedIn(request).isPresent();
    }

    private Optional<Account> signedIn(HttpServletRequest request) {
        HttpSession session = request.getSession(false);
        return session != null && session.getAttribute(ACCOUNT) instanceof String id ? accounts.byId(Long.parseLong(id)) : Optional.empty();
    }
}
