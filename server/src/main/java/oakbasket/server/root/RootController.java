package oakbasket.server.root;

import java.util.List;
import oakbasket.core.filing.FilingRule;
import oakbasket.core.filing.Place;
import oakbasket.core.team.Permission;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.rules.RuleSets;
import oakbasket.server.security.Needs;
import oakbasket.server.storage.Roots;
import oakbasket.server.storage.Transactions;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The folder roots of this office. */
@RestController
@Needs(Permission.SET_UP)
class RootController {

    /** A root with what its disk can do; {@code path} is empty for the first, which lies in the data folder. */
    record RootView(long id, String name, String path, RootChecks.Found found) {
    }

    record NewRoot(@Nullable String name, @Nullable String path) {
    }

    private static final int LONGEST_NAME = 100;
    private static final int LONGEST_PATH = 1_000;
    private static final int MOST_ROOTS = 20;

    private final Roots roots;
    private final RootChecks checks;
    private final RuleSets rules;
    private final Transactions transactions;
    private final LiveHub live;
    private final Words words;

    RootController(Roots roots, RootChecks checks, RuleSets rules, Transactions transactions, LiveHub live, Words words) {
        this.roots = roots;
        this.checks = checks;
        this.rules = rules;
        this.transactions = transactions;
        this.live = live;
        this.words = words;
    }

    @GetMapping("/api/roots")
    List<RootView> all() {
        return roots.all().stream().map(root -> new RootView(root.id(), root.id() == Place.FIRST_ROOT ? words.of("root.first") : root.name(), root.path(), checks.look(root.id()))).toList();
    }

    @PostMapping("/api/roots")
    @ResponseStatus(HttpStatus.CREATED)
    RootView add(@RequestBody NewRoot typed) {
        String name = typed.name() == null ? "" : typed.name().strip();
        String path = typed.path() == null ? "" : typed.path().strip();
        if (name.isEmpty() || name.length() > LONGEST_NAME || name.contains("/")) {
            throw name.length() > LONGEST_NAME ? Problem.field("name", "longest", LONGEST_NAME) : Problem.field("name", "root-name");
        }
        if (path.length() > LONGEST_PATH) {
            throw Problem.field("path", "longest", LONGEST_PATH);
        }
        if (roots.all().stream().anyMatch(root -> root.name().equalsIgnoreCase(name))) {
            throw Problem.field("name", "root-name-taken");
        }
        if (roots.all().size() >= MOST_ROOTS) {
            throw Problem.refused("roots-many", MOST_ROOTS);
        }
        Roots.Root root = transactions.durably(() -> roots.add(name, checks.usable(path)));
        live.publish(new LiveEvent(LiveEvent.FILING, 0, null));
        return new RootView(root.id(), root.name(), root.path(), checks.look(root.id()));
    }

    /** Takes a root out of use; what lies in it stays there. */
    @DeleteMapping("/api/roots/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable long id) {
        if (id == Place.FIRST_ROOT || !roots.has(id)) {
            throw Problem.notFound("no-root");
        }
        if (rules.all().stream().anyMatch(rule -> uses(rule, id)) || roots.used(id)) {
            throw Problem.conflict("root-used");
        }
        transactions.durably(() -> roots.remove(id));
        live.publish(new LiveEvent(LiveEvent.FILING, 0, null));
    }

    private static boolean uses(FilingRule rule, long root) {
        return rule.place() != null && rule.place().root() == root || rule.copies().stream().anyMatch(copy -> copy.root() == root);
    }
}
