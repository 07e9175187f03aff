package oakbasket.server.account;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.context.DeferredSecurityContext;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.core.context.SecurityContextImpl;
import org.springframework.security.web.context.HttpRequestResponseHolder;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.stereotype.Component;

/**
 * Who is signed in, by the session of a request. A session keeps only the number of the account, so that it says what is true of the account now, and outlives
 * a new version of this program.
 */
@Component
class AccountContexts implements SecurityContextRepository {

    private static final String ACCOUNT = FindByIndexNameSessionRepository.PRINCIPAL_NAME_INDEX_NAME;

    private final AccountService accounts;

    AccountContexts(AccountService accounts) {
        this.accounts = accounts;
    }

    @Override
    public DeferredSecurityContext loadDeferredContext(HttpServletRequest request) {
        return new DeferredSecurityContext() {
            private @Nullable SecurityContext loaded;

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
        return session != null && session.getAttribute(ACCOUNT) instanceof String id ? accounts.find(Long.parseLong(id)) : Optional.empty();
    }
}
