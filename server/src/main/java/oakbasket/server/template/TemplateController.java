package oakbasket.server.template;

import java.util.List;
import oakbasket.core.compose.RoundSheet;
import oakbasket.core.team.Permission;
import oakbasket.server.account.Account;
import oakbasket.server.round.Drafts;
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

/** Templates, and copies of rounds. */
@RestController
@Needs(Permission.CHANGE)
class TemplateController {

    record Keep(Templates.TemplateKind kind, @Nullable String name, RoundSheet sheet, boolean replace) {
    }

    private final Templates templates;
    private final RoundCopies copies;

    TemplateController(Templates templates, RoundCopies copies) {
        this.templates = templates;
        this.copies = copies;
    }

    @PostMapping("/api/rounds/{id}/copy")
    @ResponseStatus(HttpStatus.CREATED)
    Drafts.Draft copy(@PathVariable long id, @AuthenticationPrincipal Account account) {
        return copies.copy(id, account.id());
    }

    @GetMapping("/api/templates")
    List<Templates.KeptTemplate> templates() {
        return templates.all();
    }

    @PostMapping("/api/templates")
    @ResponseStatus(HttpStatus.CREATED)
    Templates.KeptTemplate keep(@RequestBody Keep body) {
        return templates.keep(body.kind(), body.name() == null ? "" : body.name(), body.sheet(), body.replace());
    }

    @DeleteMapping("/api/templates/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void discard(@PathVariable long id) {
        templates.discard(id);
    }
}
