package oakbasket.server.account;

import jakarta.servlet.http.HttpServletRequest;
import java.nio.charset.StandardCharsets;
import java.util.List;
import oakbasket.core.team.Permission;
import oakbasket.server.qr.QrPicture;
import oakbasket.server.security.Limits;
import oakbasket.server.security.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The second factor and the sessions of whoever is signed in. */
@RestController
@Needs(Permission.OWN)
class OwnAccountController {

    /**
     * Whether signing in asks for a code.
     *
     * @param spareCodes how many are left
     */
    record FactorState(boolean on, int spareCodes) {
    }

    /**
     * A secret that is offered.
     *
     * @param secret to be typed
     * @param picture the same as SVG, to be read by a device
     * @param offer to be given back with the first code
     */
    record FactorOffer(String secret, String picture, String offer) {
    }

    record FactorConfirmed(@Nullable String offer, @Nullable String code, @Nullable String password) {
    }

    record FactorEnded(@Nullable String password) {
    }

    record SpareCodes(List<String> codes) {
    }

    private final SecondFactor factors;
    private final AccountService accounts;
    private final AccountSessions sessions;
    private final Limits limits;
    private final ApplicationEventPublisher events;

    OwnAccountController(SecondFactor factors, AccountService accounts, AccountSessions sessions, Limits limits, ApplicationEventPublisher events) {
        this.events = events;
        this.factors = factors;
        this.accounts = accounts;
        this.sessions = sessions;
        this.limits = limits;
    }

    @GetMapping("/api/second-factor")
    FactorState factor(@AuthenticationPrincipal Account account) {
        return new FactorState(factors.on(account), factors.spareCodes(account));
    }

    /** Offers a secret; nothing is in force before a first code was right. */
    @PostMapping("/api/second-factor")
    FactorOffer offerFactor(@AuthenticationPrincipal Account account) {
        SecondFactor.Offer offer = factors.offer(account);
        return new FactorOffer(offer.secret(), new String(new QrPicture(offer.uri()).svg(), StandardCharsets.US_ASCII), offer.offer());
    }

    /** Puts an offered secret into force; tells the spare codes, once. */
    @PutMapping("/api/second-factor")
    SpareCodes beginFactor(@RequestBody FactorConfirmed confirmed, @AuthenticationPrincipal Account account) {
        return guarded(account, () -> {
            accounts.checkPassword(account, text(confirmed.password()));
            SpareCodes codes = new SpareCodes(factors.begin(account, text(confirmed.offer()), text(confirmed.code())));
            events.publishEvent(new SignInChange(account, SignInChange.What.CODE_ASKED));
            return codes;
        });
    }

    /** Lets the password alone be enough again. */
    @PostMapping("/api/second-factor/end")
    FactorState endFactor(@RequestBody FactorEnded ended, @AuthenticationPrincipal Account account) {
        return guarded(account, () -> {
            accounts.checkPassword(account, text(ended.password()));
            factors.end(account);
            events.publishEvent(new SignInChange(account, SignInChange.What.CODE_ENDED));
            return factor(account);
        });
    }

    private <T> T guarded(Account account, java.util.function.Supplier<T> work) {
        String who = "change " + account.id();
        limits.count(Limits.Kind.KNOWN_BROWSER, who);
        T done = work.get();
        limits.giveBack(Limits.Kind.KNOWN_BROWSER, who);
        return done;
    }

    /** Where this account is signed in. */
    @GetMapping("/api/sessions")
    List<AccountSessions.Living> signedIn(@AuthenticationPrincipal Account account, HttpServletRequest request) {
        return sessions.of(account.id(), request.getSession().getId());
    }

    /** Signs the account out somewhere. */
    @DeleteMapping("/api/sessions/{handle}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void endSession(@PathVariable String handle, @AuthenticationPrincipal Account account) {
        sessions.end(account.id(), handle);
    }

    private static String text(@Nullable String given) {
        return given == null ? "" : given;
    }
}
