package oakbasket.server.refiling;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import oakbasket.core.filing.FilingRule;
import oakbasket.core.filing.RulesCheck;
import oakbasket.core.filing.TrialRun;
import oakbasket.core.team.Permission;
import oakbasket.server.account.Account;
import oakbasket.server.basket.Baskets;
import oakbasket.server.filing.Trials;
import oakbasket.server.journal.WhyWords;
import oakbasket.server.problem.Problem;
import oakbasket.server.rules.RuleSets;
import oakbasket.server.rules.TypedRule;
import oakbasket.server.security.Needs;
import oakbasket.server.storage.Roots;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** Trying rules on what is here, doing it, and taking it back. */
@RestController
@Needs(Permission.CHANGE)
class RefilingController {

    private static final int MOST_ROWS = 500;
    private static final int MOST_FOLDERS = 500;

    /** What is tried; {@code rules} are those of this round as they might be, null means as they are. */
    record Trying(@Nullable Long roundId, @Nullable List<TypedRule> rules) {
    }

    /** A file before and after. */
    record TrialRow(long file, String person, String from, String to, boolean clash, boolean tray, String why) {
    }

    record FolderChange(String folder, int before, int after) {
    }

    /**
     * What would happen.
     *
     * @param copies how many copies rules would make, if they are not there yet
     * @param rows the first files that would move
     */
    record TrialView(int files, int moves, int unchanged, int clashes, int apart, int unreachable, int tray, int copies, int marks, List<FolderChange> folders, List<TrialRow> rows, long last, String seal) {
    }

    record RefilingBegin(@Nullable Long roundId, @Nullable Long last, @Nullable String seal) {
    }

    /** A file that stayed where it was, and why in words. */
    record Stayed(long file, String from, String to, String why) {
    }

    record RefilingView(Refiling refiling, List<Stayed> stayed) {
    }

    private final Trials trials;
    private final RuleSets sets;
    private final Refilings refilings;
    private final Baskets baskets;
    private final Roots roots;
    private final WhyWords reasons;
    private final Words words;

    RefilingController(Trials trials, RuleSets sets, Refilings refilings, Baskets baskets, Roots roots, WhyWords reasons, Words words) {
        this.trials = trials;
        this.sets = sets;
        this.refilings = refilings;
        this.baskets = baskets;
        this.roots = roots;
        this.reasons = reasons;
        this.words = words;
    }

    /** Shows what rules would do to the files that are here; moves nothing. */
    @PostMapping("/api/refilings/trial")
    TrialView trial(@RequestBody Trying trying) {
        if (trying.roundId() == null) {
            throw Problem.unreadable("unreadable");
        }
        List<FilingRule> other = trying.rules() == null ? null : TypedRule.read(trying.rules());
        if (other != null) {
            RulesCheck.Outcome checked = sets.check(trying.roundId(), other);
            if (!checked.errors().isEmpty()) {
                throw Problem.fields(checked.errors());
            }
        }
        return view(trials.of(trying.roundId(), other, Long.MAX_VALUE));
    }

    @PostMapping("/api/refilings")
    Refiling apply(@RequestBody RefilingBegin apply, @AuthenticationPrincipal Account account) {
        if (apply.roundId() == null || apply.last() == null || apply.seal() == null) {
            throw Problem.unreadable("unreadable");
        }
        return refilings.begin(apply.roundId(), apply.last(), apply.seal(), account.id());
    }

    @GetMapping("/api/refilings")
    List<Refiling> all() {
        return refilings.newest();
    }

    @GetMapping("/api/refilings/{id}")
    RefilingView one(@PathVariable long id) {
        return new RefilingView(refilings.byId(id), refilings.failed(id).stream()
                .map(step -> new Stayed(step.fileId(), roots.words(step.fromPlace()), roots.words(step.toPlace()), words.of("stayed." + step.problem()))).toList());
    }

    @PostMapping("/api/refilings/{id}/undo")
    Refiling undo(@PathVariable long id, @AuthenticationPrincipal Account account) {
        return refilings.undo(id, account.id());
    }

    private TrialView view(Trials.Trial trial) {
        TrialRun.Outcome outcome = trial.outcome();
        List<TrialRun.Move> shown = outcome.moves().stream().limit(MOST_ROWS).toList();
        Map<Long, String> people = baskets.names(shown.stream().map(move -> tried(trial, move).file().basketId()).distinct().toList());
        List<TrialRow> rows = new ArrayList<>();
        for (TrialRun.Move move : shown) {
            Trials.Tried tried = tried(trial, move);
            rows.add(new TrialRow(move.file(), people.getOrDefault(tried.file().basketId(), ""), roots.words(move.from()), roots.words(move.to()), move.clash(), tried.decision().tray(), reasons.of(tried.why())));
        }
        List<FolderChange> folders = outcome.folders().stream().filter(folder -> folder.before() != folder.after()).limit(MOST_FOLDERS)
                .map(folder -> new FolderChange(roots.words(folder.folder().startsWith(":") && !folder.folder().contains("/") ? folder.folder() + "/" : folder.folder()), folder.before(), folder.after())).toList();
        return new TrialView(trial.tried().size(), outcome.moves().size(), outcome.unchanged(), outcome.clashes(), trial.apart(), trial.unreachable(),
                (int) trial.tried().values().stream().filter(one -> one.decision().tray()).count(), trial.tried().values().stream().mapToInt(one -> one.decision().copies().size()).sum(),
                trial.tried().values().stream().mapToInt(one -> one.decision().marks().size()).sum(), folders, rows, trial.last(), trial.seal());
    }

    private static Trials.Tried tried(Trials.Trial trial, TrialRun.Move move) {
        return Objects.requireNonNull(trial.tried().get(move.file()));
    }
}
