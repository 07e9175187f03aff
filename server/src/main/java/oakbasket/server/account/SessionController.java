package oakbasket.server.account;

import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import oakbasket.core.team.Permission;
import oakbasket.core.team.Role;
import oakbasket.server.Settings;
import oakbasket.server.brand.Brand;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.FromOutside;
import oakbasket.server.security.Limits;
import oakbasket.server.security.Needs;
import oakbasket.server.web.Caller;
import oakbasket.server.web.PublicAddress;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseCookie;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.csrf.CookieCsrfTokenRepository;
import org.springframework.security.web.csrf.CsrfAuthenticationStrategy;
import org.springframework.security.web.csrf.CsrfToken;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Signing in and out, and the first account. */
@RestController
@FromOutside
class SessionController {

    /**
     * Who is signed in.
     *
     * @param role null when nobody is
     * @param may what they may do, so that the desk offers nothing else
     */
    record Session(boolean signedIn, boolean setUpNeeded, long account, String name, String email, @Nullable Role role, List<Permission> may, String office, String zone) {
    }

    /**
     * A try to sign in.
     *
     * @param code the second factor, where it was asked for; or a spare code
     */
    record SignIn(@Nullable String email, @Nullable String password, @Nullable String code) {
    }

    /** What a device signed. @param answer as WebAuthn has it, in JSON */
    record PasskeySigned(@Nullable String offer, @Nullable String answer) {
    }

    record NewPassword(@Nullable String present, @Nullable String password) {
    }

    record FirstAccount(@Nullable String code, @Nullable String name, @Nullable String email, @Nullable String password) {
    }

    private static final String BROWSER_COOKIE = "oak-browser";
    private static final Duration BROWSER_KNOWN = Duration.ofDays(180);

    private final AccountService accounts;
    private final AccountContexts contexts;
    private final AccountSessions sessions;
    private final Limits limits;
    private final Settings settings;
    private final Brand brand;
    private final KnownBrowsers browsers;
    private final CookieCsrfTokenRepository csrfTokens;
    private final SecondFactor factors;
    private final Passkeys passkeys;
    private final PermittedActs permitted;
    private final ApplicationEventPublisher events;

    SessionController(AccountService accounts, AccountContexts contexts, AccountSessions sessions, Limits limits, Settings settings, KnownBrowsers browsers,
            CookieCsrfTokenRepository csrfTokens, SecondFactor factors, Passkeys passkeys, PermittedActs permitted, ApplicationEventPublisher events, Brand brand) {
        this.brand = brand;
        this.events = events;
        this.factors = factors;
        this.passkeys = passkeys;
        this.permitted = permitted;
        this.browsers = browsers;
        this.csrfTokens = csrfTokens;
        this.accounts = accounts;
        this.contexts = contexts;
        this.sessions = sessions;
        this.limits = limits;
        this.settings = settings;
    }

    @GetMapping("/api/session")
    Session session(@AuthenticationPrincipal @Nullable Account account) {
        String name = account == null ? "" : account.name();
        String email = account == null ? "" : account.email();
        return new Session(account != null, accounts.setUpNeeded(), account == null ? 0 : account.id(), name, email, account == null ? null : account.role(), account == null ? List.of() : permitted.of(account.role()),
                brand.name(), settings.zone().getId());
    }

    @PostMapping("/api/session")
    Session signIn(@RequestBody SignIn body, HttpServletRequest request, HttpServletResponse response) {
        String email = text(body.email());
        String account = AccountService.keyOf(email).orElse("-");
        Optional<String> browser = browsers.name(marks(request), account);
        List<Map.Entry<Limits.Kind, String>> counted = browser.isPresent() ? List.of(Map.entry(Limits.Kind.KNOWN_BROWSER, browser.get()))
                : List.of(Map.entry(Limits.Kind.SIGN_IN, Caller.of(request)), Map.entry(Limits.Kind.ACCOUNT, account));
        counted.forEach(one -> limits.count(one.getKey(), one.getValue()));
        Account entered;
        try {
            entered = accounts.signIn(email, text(body.password()), browser.isPresent(), Caller.of(request));
        } catch (Problem refused) {
            events.publishEvent(new SignIns(0, email, Caller.address(request), SignIns.What.REFUSED));
            throw refused;
        }
        String code = text(body.code());
        if (factors.on(entered)) {
            if (code.isBlank()) {
                counted.forEach(one -> limits.giveBack(one.getKey(), one.getValue()));
                throw Problem.of(Problem.Kind.SIGN_IN_NEEDED, "second-factor-needed");
            }
            if (!factors.right(entered, code)) {
                events.publishEvent(new SignIns(entered.id(), entered.name(), Caller.address(request), SignIns.What.REFUSED));
                throw Problem.of(Problem.Kind.SIGN_IN_NEEDED, "second-factor-wrong");
            }
        }
        counted.forEach(one -> limits.giveBack(one.getKey(), one.getValue()));
        if (browser.isEmpty()) {
            remember(response, browsers.mark(account));
        }
        events.publishEvent(new SignIns(entered.id(), entered.name(), Caller.address(request), SignIns.What.IN));
        return enter(entered, request, response);
    }

    /** What a device is asked to sign by whoever wants to come in with a passkey. */
    @PostMapping("/api/session/passkey-offer")
    Passkeys.Offer offerPasskeySignIn(HttpServletRequest request) {
        return passkeys.offerSigning(PublicAddress.of(settings, request));
    }

    /** Signs in with a passkey, which is two factors at once: something one has, and that it knows who holds it. */
    @PostMapping("/api/session/passkey")
    Session passkeySignIn(@RequestBody PasskeySigned body, HttpServletRequest request, HttpServletResponse response) {
        limits.count(Limits.Kind.SIGN_IN, Caller.of(request));
        Account entered;
        try {
            entered = passkeys.signedBy(PublicAddress.of(settings, request), text(body.offer()), text(body.answer()));
        } catch (Problem refused) {
            events.publishEvent(new SignIns(0, "", Caller.address(request), SignIns.What.REFUSED));
            throw refused;
        }
        limits.giveBack(Limits.Kind.SIGN_IN, Caller.of(request));
        events.publishEvent(new SignIns(entered.id(), entered.name(), Caller.address(request), SignIns.What.IN));
        return enter(entered, request, response);
    }

    @PostMapping("/api/first-account")
    @ResponseStatus(HttpStatus.CREATED)
    Session first(@RequestBody FirstAccount body, HttpServletRequest request, HttpServletResponse response) {
        limits.count(Limits.Kind.SET_UP, Caller.of(request));
        Account account = accounts.makeFirst(text(body.code()), text(body.name()), text(body.email()), text(body.password()));
        events.publishEvent(new SignIns(account.id(), account.name(), Caller.address(request), SignIns.What.FIRST));
        return enter(account, request, response);
    }

    /** Changes the own password; every other session of the account ends. */
    @Needs(Permission.OWN)
    @PostMapping("/api/session/password")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void changePassword(@RequestBody NewPassword body, @AuthenticationPrincipal Account account, HttpServletRequest request) {
        String who = "change " + account.id();
        limits.count(Limits.Kind.KNOWN_BROWSER, who);
        accounts.changePassword(account, text(body.present()), text(body.password()));
        limits.giveBack(Limits.Kind.KNOWN_BROWSER, who);
        sessions.endOthers(account.id(), request.getSession().getId());
        events.publishEvent(new SignInChange(account, SignInChange.What.OWN_PASSWORD));
    }

    @DeleteMapping("/api/session")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void signOut(@AuthenticationPrincipal @Nullable Account account, HttpServletRequest request) {
        HttpSession session = request.getSession(false);
        if (session != null) {
            String id = session.getId();
            session.invalidate();
            sessions.ended(id);
            if (account != null) {
                events.publishEvent(new SignIns(account.id(), account.name(), Caller.address(request), SignIns.What.OUT));
            }
        }
    }

    private Session enter(Account account, HttpServletRequest request, HttpServletResponse response) {
        if (request.getSession(false) != null) {
            request.changeSessionId();
        }
        SecurityContext context = SecurityContextHolder.createEmptyContext();
        Authentication authentication = UsernamePasswordAuthenticationToken.authenticated(account, null, List.of());
        context.setAuthentication(authentication);
        SecurityContextHolder.setContext(context);
        contexts.saveContext(context, request, response);
        request.getSession().setAttribute(AccountSessions.BROWSER, BrowserName.of(request.getHeader(HttpHeaders.USER_AGENT)));
        request.getSession().setAttribute(AccountSessions.CALLER, Caller.address(request));
        // Whatever token stood in the browser before may be known to somebody else.
        new CsrfAuthenticationStrategy(csrfTokens).onAuthentication(authentication, request, response);
        // The new one is made, and goes to the browser, only when it is asked for.
        ((CsrfToken) request.getAttribute(CsrfToken.class.getName())).getToken();
        return session(account);
    }

    private static List<String> marks(HttpServletRequest request) {
        Cookie[] cookies = request.getCookies();
        return cookies == null ? List.of() : Arrays.stream(cookies).filter(cookie -> cookie.getName().equals(BROWSER_COOKIE)).map(Cookie::getValue).toList();
    }

    private void remember(HttpServletResponse response, String mark) {
        ResponseCookie cookie = ResponseCookie.from(BROWSER_COOKIE, mark).httpOnly(true).secure(settings.https()).sameSite("Strict").path("/api/session").maxAge(BROWSER_KNOWN).build();
        response.addHeader(HttpHeaders.SET_COOKIE, cookie.toString());
    }

    private static String text(@Nullable String given) {
        return given == null ? "" : given;
    }
}
