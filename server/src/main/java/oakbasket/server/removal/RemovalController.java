package oakbasket.server.removal;

import io.swagger.v3.oas.annotations.media.Schema;
import oakbasket.core.team.Permission;
import oakbasket.server.account.Account;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.security.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Taking files out, and putting them back. */
@RestController
@Needs(Permission.CHANGE)
class RemovalController {

    record Removal(@Schema(maxLength = ReceivedFiles.LONGEST_REASON) @Nullable String reason) {
    }

    private final RemovedFiles removed;

    RemovalController(RemovedFiles removed) {
        this.removed = removed;
    }

    @PostMapping("/api/removals/{file}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable long file, @RequestBody Removal removal, @AuthenticationPrincipal Account account) {
        removed.remove(file, removal.reason() == null ? "" : removal.reason(), account.id());
    }

    @PostMapping("/api/removals/{file}/undo")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void restore(@PathVariable long file, @AuthenticationPrincipal Account account) {
        removed.restore(file, account.id());
    }
}
