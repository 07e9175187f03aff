package oakbasket.server.team;

import jakarta.servlet.http.HttpServletRequest;
import oakbasket.core.team.Role;
import oakbasket.server.brand.Brand;
import oakbasket.server.security.FromOutside;
import oakbasket.server.web.Caller;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** For whoever holds the link of an invitation, or forgot a password. Nobody is signed in here. */
@RestController
@FromOutside
class JoiningController {

    record HeldInvitation(@Nullable String token) {
    }

    record InvitationSeen(String name, String email, Role role, String office) {
    }

    record NewMember(@Nullable String token, @Nullable String name, @Nullable String password) {
    }

    record ForgottenPassword(@Nullable String email) {
    }

    record FreshPassword(@Nullable String token, @Nullable String password) {
    }

    private final Invitations invitations;
    private final PasswordResets resets;
    private final Brand brand;

    JoiningController(Invitations invitations, PasswordResets resets, Brand brand) {
        this.brand = brand;
        this.invitations = invitations;
        this.resets = resets;
    }

    /** What an invitation says. */
    @PostMapping("/api/joining/look")
    InvitationSeen lookAtInvitation(@RequestBody HeldInvitation held, HttpServletRequest request) {
        Invitation invitation = invitations.held(text(held.token()), Caller.of(request));
        return new InvitationSeen(invitation.name(), invitation.email(), invitation.role(), brand.name());
    }

    /** Makes the account of whoever was invited. */
    @PostMapping("/api/joining")
    @ResponseStatus(HttpStatus.CREATED)
    void join(@RequestBody NewMember member, HttpServletRequest request) {
        invitations.join(text(member.token()), text(member.name()), text(member.password()), Caller.of(request));
    }

    /** Asks for a link by which a new password can be set; the answer is the same whether there is such an account or not. */
    @PostMapping("/api/password-reset")
    @ResponseStatus(HttpStatus.ACCEPTED)
    void askForReset(@RequestBody ForgottenPassword forgotten, HttpServletRequest request) {
        resets.ask(text(forgotten.email()), Caller.of(request));
    }

    /** Sets a new password with such a link. */
    @PutMapping("/api/password-reset")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void setByReset(@RequestBody FreshPassword fresh, HttpServletRequest request) {
        resets.set(text(fresh.token()), text(fresh.password()), Caller.of(request));
    }

    private static String text(@Nullable String given) {
        return given == null ? "" : given;
    }
}
