package oakbasket.server.apppassword;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import oakbasket.core.team.Permission;
import oakbasket.server.account.Account;
import oakbasket.server.security.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The passwords of one's own programs. */
@RestController
@Needs(Permission.OWN)
class AppPasswordController {

    record NewAppPassword(@Schema(maxLength = AppPasswords.LONGEST_NAME) @Nullable String name) {
    }

    /** A password just made; it is shown this once. */
    record MadePassword(String password) {
    }

    private final AppPasswords passwords;

    AppPasswordController(AppPasswords passwords) {
        this.passwords = passwords;
    }

    @GetMapping("/api/app-passwords")
    List<AppPassword> all(@AuthenticationPrincipal Account account) {
        return passwords.of(account.id());
    }

    @PostMapping("/api/app-passwords")
    @ResponseStatus(HttpStatus.CREATED)
    MadePassword make(@RequestBody NewAppPassword typed, @AuthenticationPrincipal Account account) {
        return new MadePassword(passwords.make(account.id(), typed.name() == null ? "" : typed.name()));
    }

    @DeleteMapping("/api/app-passwords/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void revoke(@PathVariable long id, @AuthenticationPrincipal Account account) {
        passwords.revoke(id, account.id());
    }
}
