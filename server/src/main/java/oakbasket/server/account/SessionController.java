package oakbasket.server.account;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.util.List;
import java.util.Locale;
import oakbasket.server.Settings;
import oakbasket.server.web.Limits;
import oakbasket.server.web.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Signing in and out, and the first account. */
@RestController
class SessionController {

    record Session(boolean signedIn, boolean setUpNeeded, String name, String email, String office, String zone) {
    }

    record SignIn(@Nullable String email, @Nullable String password) {
    }

    record FirstAccount(@Nullable String code, @Nullable String name, @Nullable String email, @Nullable String password) {
    }

    private final AccountService accounts;
    private final SecurityContextRepository contexts;
    private final Limits limits;
    private final Settings settings;

    SessionController(AccountService accounts, SecurityContextRepository contexts, Limits limits, Settings settings) {
        this.accounts = accounts;
        this.contexts = contexts;
        this.limits = limits;
        this.settings = settings;
    }

    @GetMapping("/api/session")
    Session session(@AuthenticationPrincipal @Nullable Account account) {
        String name = account == null ? "" : account.name();
        String email = account == null ? "" : account.email();
        return new Session(account != null, accounts.setUpNeeded(), name, email, settings.office(), settings.zone().getId());
    }

    @PostMapping("/api/session")
    Session signIn(@RequestBody SignIn body, HttpServletRequest request, HttpServletResponse response) {
        String email = text(body.email());
        String account = email.strip().toLowerCase(Locale.ROOT);
        limits.check(Limits.Kind.SIGN_IN, request.getRemoteAddr());
        limits.check(Limits.Kind.ACCOUNT, account);
        try {
            return enter(accounts.signIn(email, text(body.password())), request, response);
        } catch (Problem wrong) {
            limits.count(Limits.Kind.SIGN_IN, request.getRemoteAddr());
            limits.count(Limits.Kind.ACCOUNT, account);
            throw wrong;
        }
    }

    @PostMapping("/api/first-account")
    @ResponseStatus(HttpStatus.CREATED)
    Session first(@RequestBody FirstAccount body, HttpServletRequest request, HttpServletResponse response) {
        limits.count(Limits.Kind.SIGN_IN, request.getRemoteAddr());
        Account account = accounts.makeFirst(text(body.code()), text(body.name()), text(body.email()), text(body.password()));
        return enter(account, request, response);
    }

    @DeleteMapping("/api/session")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void signOut(HttpServletRequest request) {
        HttpSession session = request.getSession(false);
        if (session != null) {
            session.invalidate();
        }
    }

    private Session enter(Account account, HttpServletRequest request, HttpServletResponse response) {
        if (request.getSession(false) != null) {
            request.changeSessionId();
        }
        SecurityContext context = SecurityContextHolder.createEmptyContext();
        context.setAuthentication(UsernamePasswordAuthenticationToken.authenticated(account, null, List.of()));
        SecurityContextHolder.setContext(context);
        contexts.saveContext(context, request, response);
        return session(account);
    }

    private static String text(@Nullable String given) {
        return given == null ? "" : given;
    }
}
