package oakbasket.server.keptplan;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import oakbasket.core.compose.RoundSheet.SheetLetters;
import oakbasket.core.team.Permission;
import oakbasket.server.security.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Plans to be used again. */
@RestController
@Needs(Permission.CHANGE)
class KeptPlanController {

    record TypedKeptPlan(@Schema(maxLength = KeptPlans.LONGEST_NAME) @Nullable String name, @Nullable SheetLetters plan) {
    }

    private final KeptPlans plans;

    KeptPlanController(KeptPlans plans) {
        this.plans = plans;
    }

    @GetMapping("/api/kept-plans")
    List<KeptPlans.KeptPlan> all() {
        return plans.all();
    }

    /** Keeps a plan under a name; one of the same name is replaced. */
    @PostMapping("/api/kept-plans")
    KeptPlans.KeptPlan keep(@RequestBody TypedKeptPlan typed) {
        return plans.keep(typed.name() == null ? "" : typed.name(), typed.plan() == null ? SheetLetters.NONE : typed.plan());
    }

    @DeleteMapping("/api/kept-plans/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void discard(@PathVariable long id) {
        plans.discard(id);
    }
}
