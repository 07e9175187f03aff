package oakbasket.server.rules;

import java.util.List;
import oakbasket.core.fault.Fault;
import oakbasket.core.filing.FilingRule;
import oakbasket.core.filing.RulesCheck;
import oakbasket.core.team.Permission;
import oakbasket.server.account.Account;
import oakbasket.server.problem.Problem;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.security.Needs;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** The rules of filing, of a round or, as round 0, of the office. */
@RestController
@Needs(Permission.CHANGE)
class RulesController {

    record TypedRules(@Nullable Integer version, @Nullable List<TypedRule> rules) {
    }

    /** A rule that can never act, and why in words; {@code shadowedBy} is the number of the earlier rule in its way. */
    record IdleRule(int number, @Nullable Integer shadowedBy, String why) {
    }

    /** The rules of a round with what is odd about them, and where files go that no rule places; {@code round}, {@code folder}, {@code name} and {@code items} are empty for the office. */
    record RuleList(long roundId, String round, int version, List<FilingRule> rules, List<IdleRule> idle, int officeRules, String folder, String name, List<String> items) {
    }

    record RulesChecked(List<Fault> errors, List<IdleRule> idle) {
    }

    record RulesBack(@Nullable Integer version, @Nullable Integer to) {
    }

    private final RuleSets sets;
    private final Rounds rounds;
    private final Words words;

    RulesController(RuleSets sets, Rounds rounds, Words words) {
        this.sets = sets;
        this.rounds = rounds;
        this.words = words;
    }

    @GetMapping("/api/rules/{round}")
    RuleList rules(@PathVariable long round) {
        if (round != RuleSets.OFFICE) {
            rounds.head(round);
        }
        return list(sets.of(round));
    }

    @PutMapping("/api/rules/{round}")
    RuleList change(@PathVariable long round, @RequestBody TypedRules typed, @AuthenticationPrincipal Account account) {
        if (typed.version() == null || typed.rules() == null) {
            throw Problem.unreadable("unreadable");
        }
        return list(sets.change(round, typed.version(), TypedRule.read(typed.rules()), account.id()));
    }

    /** Checks rules while they are typed; stores nothing. */
    @PostMapping("/api/rules/{round}/check")
    RulesChecked check(@PathVariable long round, @RequestBody TypedRules typed) {
        if (round != RuleSets.OFFICE) {
            rounds.opened(round);
        }
        RulesCheck.Outcome outcome = sets.check(round, TypedRule.read(typed.rules() == null ? List.of() : typed.rules()));
        return new RulesChecked(outcome.errors(), idle(outcome));
    }

    /** Puts the rules of an earlier version into force again. */
    @PostMapping("/api/rules/{round}/back")
    RuleList back(@PathVariable long round, @RequestBody RulesBack back, @AuthenticationPrincipal Account account) {
        if (back.version() == null || back.to() == null) {
            throw Problem.unreadable("unreadable");
        }
        return list(sets.back(round, back.version(), back.to(), account.id()));
    }

    private RuleList list(RuleSet set) {
        List<IdleRule> idle = idle(sets.check(set.roundId(), set.rules()));
        if (set.roundId() == RuleSets.OFFICE) {
            return new RuleList(set.roundId(), "", set.version(), set.rules(), idle, 0, "", "", List.of());
        }
        Round round = rounds.opened(set.roundId());
        return new RuleList(set.roundId(), round.title(), set.version(), set.rules(), idle, sets.of(RuleSets.OFFICE).rules().size(), round.folderPattern(), round.namePattern(),
                rounds.items(round.id()).stream().map(item -> item.spec().title()).toList());
    }

    private List<IdleRule> idle(RulesCheck.Outcome outcome) {
        return outcome.idle().stream().map(one -> new IdleRule(one.number(), one.shadowedBy() == null ? null : one.shadowedBy().number(), words.of(one.why()))).toList();
    }
}
