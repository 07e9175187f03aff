package oakbasket.server.account;

import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import oakbasket.core.team.Permission;
import oakbasket.server.Settings;
import oakbasket.server.security.Limits;
import oakbasket.server.security.Needs;
import oakbasket.server.web.PublicAddress;
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

/** The passkeys of whoever is signed in. */
@RestController
@Needs(Permission.OWN)
class PasskeyController {

    record PasskeyAsked(@Nullable String password) {
    }

    /** What a device made. @param answer as WebAuthn has it, in JSON */
    record PasskeyMade(@Nullable String offer, @Nullable String label, @Nullable String answer) {
    }

    private final Passkeys passkeys;
    private final AccountService accounts;
    private final Limits limits;
    private final Settings settings;
    private final ApplicationEventPublisher events;

    PasskeyController(Passkeys passkeys, AccountService accounts, Limits limits, Settings settings, ApplicationEventPublisher events) {
        this.events = events;
        this.passkeys = passkeys;
        this.accounts = accounts;
        this.limits = limits;
        this.settings = settings;
    }

    @GetMapping("/api/passkeys")
    List<Passkey> passkeys(@AuthenticationPrincipal Account account) {
        return passkeys.of(account);
    }

    /** Offers a device what it is to make, to whoever knows the password. */
    @PostMapping("/api/passkeys")
    Passkeys.Offer offerPasskey(@RequestBody PasskeyAsked asked, @AuthenticationPrincipal Account account, HttpServletRequest request) {
        String who = "change " + account.id();
        limits.count(Limits.Kind.KNOWN_BROWSER, who);
        accounts.checkPassword(account, text(asked.password()));
        limits.giveBack(Limits.Kind.KNOWN_BROWSER, who);
        return passkeys.offerMaking(account, PublicAddress.of(settings, request));
    }

    /** Keeps what a device made. */
    @PutMapping("/api/passkeys")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void keepPasskey(@RequestBody PasskeyMade made, @AuthenticationPrincipal Account account, HttpServletRequest request) {
        passkeys.keep(account, PublicAddress.of(settings, request), text(made.offer()), text(made.label()), text(made.answer()));
        events.publishEvent(new SignInChange(account, SignInChange.What.PASSKEY_ADDED));
    }

    @DeleteMapping("/api/passkeys/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void removePasskey(@PathVariable long id, @AuthenticationPrincipal Account account) {
        passkeys.remove(account, id);
        events.publishEvent(new SignInChange(account, SignInChange.What.PASSKEY_ENDED));
    }

    private static String text(@Nullable String given) {
        return given == null ? "" : given;
    }
}
