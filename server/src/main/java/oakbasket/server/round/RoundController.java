package oakbasket.server.round;

import oakbasket.core.compose.RoundSheet;
import oakbasket.core.round.RoundState;
import oakbasket.core.team.Permission;
import oakbasket.server.account.Account;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Needs;
import oakbasket.server.security.Noted;
import org.jspecify.annotations.Nullable;
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

/** Keeping drafts, closing and reopening rounds. */
@RestController
@Needs(Permission.CHANGE)
class RoundController {

    record Save(int version, @Nullable RoundSheet sheet) {
    }

    private final Rounds rounds;
    private final Drafts drafts;

    RoundController(Rounds rounds, Drafts drafts) {
        this.rounds = rounds;
        this.drafts = drafts;
    }

    @PostMapping("/api/rounds")
    @ResponseStatus(HttpStatus.CREATED)
    Drafts.Draft begin(@RequestBody RoundSheet sheet, @AuthenticationPrincipal Account account) {
        Noted.about(sheet.title());
        return drafts.begin(sheet, account.id());
    }

    @GetMapping("/api/rounds/{id}/sheet")
    Drafts.Draft sheet(@PathVariable long id) {
        return drafts.draft(id);
    }

    @PutMapping("/api/rounds/{id}/sheet")
    Drafts.Draft save(@PathVariable long id, @RequestBody Save body) {
        if (body.sheet() == null) {
            throw Problem.unreadable("unreadable");
        }
        return drafts.save(id, body.version(), body.sheet());
    }

    @DeleteMapping("/api/rounds/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void discard(@PathVariable long id) {
        drafts.discard(id);
    }

    @PostMapping("/api/rounds/{id}/close")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void close(@PathVariable long id) {
        rounds.change(id, RoundState.Change.CLOSE);
    }

    @PostMapping("/api/rounds/{id}/reopen")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void reopen(@PathVariable long id) {
        rounds.change(id, RoundState.Change.REOPEN);
    }
}
