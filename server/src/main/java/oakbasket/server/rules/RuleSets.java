package oakbasket.server.rules;

import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import oakbasket.core.filing.FilingPlan;
import oakbasket.core.filing.FilingRule;
import oakbasket.core.filing.RuleRef;
import oakbasket.core.filing.RulesCheck;
import oakbasket.core.naming.NamingPattern;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Roots;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** The rules of each round and of the office. */
@Service
public class RuleSets {

    /** Stands for the office where a round is asked for. */
    public static final long OFFICE = 0;

    private static final int MOST_REMEMBERED = 500;

    private record Ready(int round, int office, String folders, String name, FilingPlan plan) {
    }

    private final RuleSetTable table;
    private final Rounds rounds;
    private final Roots roots;
    private final Transactions transactions;
    private final LiveHub live;
    private final Clock clock;
    private final Map<Long, RuleSet> newest = new ConcurrentHashMap<>();
    private final Map<Long, Ready> ready = new ConcurrentHashMap<>();

    RuleSets(RuleSetTable table, Rounds rounds, Roots roots, Transactions transactions, LiveHub live, Clock clock) {
        this.table = table;
        this.rounds = rounds;
        this.roots = roots;
        this.transactions = transactions;
        this.live = live;
        this.clock = clock;
    }

    /** The rules of a round, or of the office, as they are now. */
    public RuleSet of(long round) {
        return newest.computeIfAbsent(round, id -> Acting.asOffice(() -> table.newest(id).orElse(new RuleSet(id, 0, List.of()))));
    }

    /** Every rule that is in force anywhere. */
    public List<FilingRule> all() {
        return table.rounds().stream().flatMap(round -> of(round).rules().stream()).toList();
    }

    /** What decides where the files of a round go. */
    public FilingPlan plan(Round round) {
        RuleSet own = of(round.id());
        RuleSet office = of(OFFICE);
        Ready known = ready.get(round.id());
        if (known != null && known.round() == own.version() && known.office() == office.version() && known.folders().equals(round.folderPattern()) && known.name().equals(round.namePattern())) {
            return known.plan();
        }
        FilingPlan plan = planWith(round, own.rules(), office.rules());
        if (ready.size() > MOST_REMEMBERED) {
            ready.clear();
        }
        ready.put(round.id(), new Ready(own.version(), office.version(), round.folderPattern(), round.namePattern(), plan));
        return plan;
    }

    /** What would decide with other rules. */
    public static FilingPlan planWith(Round round, List<FilingRule> own, List<FilingRule> office) {
        return new FilingPlan(own, office, NamingPattern.folders(round.folderPattern()), NamingPattern.fileName(round.namePattern()));
    }

    /** What keeps rules from being used, and which of them can never act. */
    public RulesCheck.Outcome check(long round, List<FilingRule> rules) {
        RulesCheck.Context context = new RulesCheck.Context(round == OFFICE ? null : rounds.items(round).stream().map(item -> item.spec().title()).toList(), roots::has);
        return RulesCheck.check(rules, round == OFFICE ? RuleRef.Level.OFFICE : RuleRef.Level.ROUND, List.of(), context);
    }

    /**
     * Puts other rules into force, for what arrives from now on.
     *
     * @param version the version the change was made from
     * @throws Problem with status 422 when they cannot be used, 409 when somebody changed them meanwhile
     */
    public RuleSet change(long round, int version, List<FilingRule> rules, @Nullable Long account) {
        if (round != OFFICE) {
            rounds.opened(round);
        }
        RulesCheck.Outcome outcome = check(round, rules);
        if (!outcome.errors().isEmpty()) {
            throw Problem.fields(outcome.errors());
        }
        RuleSet changed = new RuleSet(round, version + 1, List.copyOf(rules));
        transactions.durably(() -> {
            if (of(round).version() != version || !table.insert(changed, clock.instant(), account)) {
                throw Problem.conflict("changed-elsewhere");
            }
        });
        newest.put(round, changed);
        live.publish(new LiveEvent(LiveEvent.FILING, round, null));
        return changed;
    }

    /** The rules of an earlier version, put into force again. */
    public RuleSet back(long round, int version, int to, long account) {
        List<FilingRule> before = to == 0 ? List.of() : table.version(round, to).orElseThrow(() -> Problem.notFound("no-rules")).rules();
        return change(round, version, before, account);
    }
}
