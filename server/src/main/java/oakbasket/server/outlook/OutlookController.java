package oakbasket.server.outlook;

import java.time.Instant;
import java.time.LocalDateTime;
import java.util.List;
import oakbasket.core.reminder.PlanChange;
import oakbasket.core.team.Permission;
import oakbasket.server.account.Account;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** What will go. */
@RestController
@Needs(Permission.CHANGE)
class OutlookController {

    /**
     * A decision about letters that a plan means for a moment.
     *
     * @param baskets whose; null for everybody's
     * @param act null lets them go as the plan means
     * @param to where they are moved, in everybody's own time
     */
    record OutlookChange(long roundId, @Nullable Instant at, @Nullable List<Long> baskets, PlanChange.@Nullable Act act, @Nullable LocalDateTime to) {
    }

    /** @param held letters that are held beyond their time */
    record OutlookView(List<Outlook.OutlookDay> days, List<Outlook.OutlookLetters> held) {
    }

    private final Outlook outlook;
    private final DryRun dryRun;

    OutlookController(Outlook outlook, DryRun dryRun) {
        this.outlook = outlook;
        this.dryRun = dryRun;
    }

    /** The letters of the next days as things stand, and who is left out and why. */
    @GetMapping("/api/outlook")
    OutlookView days(@RequestParam(defaultValue = "28") int days, @RequestParam(required = false) @Nullable Long round) {
        return new OutlookView(outlook.days(days, round), outlook.held());
    }

    /** Who gets the letter that a round means for a moment, and who does not and why. */
    @GetMapping("/api/outlook/people")
    Outlook.OutlookPeople people(@RequestParam long round, @RequestParam Instant at, @RequestParam(defaultValue = "") String find) {
        return outlook.people(round, at, find);
    }

    /** Moves, skips, holds or lets go letters before they go. */
    @PostMapping("/api/outlook/changes")
    Outlook.OutlookDecision change(@RequestBody OutlookChange change, @AuthenticationPrincipal Account account) {
        Instant at = change.at();
        if (at == null || change.baskets() != null && (change.baskets().isEmpty() || change.baskets().size() > Outlook.MOST_DECIDED || change.baskets().contains(null))) {
            throw Problem.unreadable("unreadable");
        }
        return outlook.decide(change.roundId(), at, change.baskets(), change.act(), change.to(), account.id());
    }

    @PostMapping("/api/outlook/changes/{batch}/undo")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void undo(@PathVariable long batch) {
        outlook.undo(batch);
    }

    /** What the plan of a draft would send if it were opened now and nothing came in. */
    @GetMapping("/api/rounds/{id}/dry-run")
    DryRun.DryRunResult dryRun(@PathVariable long id) {
        return dryRun.of(id);
    }
}
