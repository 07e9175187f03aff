package oakbasket.server.change;

import oakbasket.core.compose.RoundSheet;
import oakbasket.core.team.Permission;
import oakbasket.server.security.Needs;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Changing a round that gathers. */
@RestController
@Needs(Permission.CHANGE)
class ChangeController {

    record ChangeRound(int version, RoundSheet sheet, boolean dropPasscode) {
    }

    private final RoundChanges changes;

    ChangeController(RoundChanges changes) {
        this.changes = changes;
    }

    @GetMapping("/api/rounds/{id}/change")
    RoundChanges.Changing change(@PathVariable long id) {
        return changes.sheet(id);
    }

    /** Whom a change would affect; stores nothing. */
    @PostMapping("/api/rounds/{id}/change/preview")
    RoundChanges.ChangePreview preview(@PathVariable long id, @RequestBody ChangeRound body) {
        return changes.preview(id, body.sheet(), body.dropPasscode());
    }

    @PostMapping("/api/rounds/{id}/change")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void apply(@PathVariable long id, @RequestBody ChangeRound body) {
        changes.apply(id, body.version(), body.sheet(), body.dropPasscode());
    }
}
