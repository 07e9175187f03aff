package oakbasket.server.tray;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import oakbasket.core.filing.Condition;
import oakbasket.core.filing.FilingRule;
import oakbasket.core.filing.FilingRuleBuilder;
import oakbasket.core.filing.Placement;
import oakbasket.core.filing.Subject;
import oakbasket.core.filing.Test;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.basket.Submissions;
import oakbasket.server.filing.Refile;
import oakbasket.server.journal.Act;
import oakbasket.server.journal.Journal;
import oakbasket.server.journal.Why;
import oakbasket.server.live.LiveEvent;
import oakbasket.server.live.LiveHub;
import oakbasket.server.problem.Problem;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Item;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.rules.RuleSet;
import oakbasket.server.rules.RuleSets;
import oakbasket.server.storage.Acting;
import oakbasket.server.storage.Transactions;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Deciding what waits in the tray, and taking a decision back. */
@Service
class Tray {

    private final TrayTable table;
    private final ReceivedFiles files;
    private final Baskets baskets;
    private final Submissions submissions;
    private final Rounds rounds;
    private final RuleSets rules;
    private final Refile refile;
    private final Transactions transactions;
    private final LiveHub live;
    private final Clock clock;

    Tray(TrayTable table, ReceivedFiles files, Baskets baskets, Submissions submissions, Rounds rounds, RuleSets rules, Refile refile, Transactions transactions, LiveHub live, Clock clock) {
        this.table = table;
        this.files = files;
        this.baskets = baskets;
        this.submissions = submissions;
        this.rounds = rounds;
        this.rules = rules;
        this.refile = refile;
        this.transactions = transactions;
        this.live = live;
        this.clock = clock;
    }

    /**
     * Files what somebody looked at.
     *
     * @param chosen the files
     * @param senders sendings whose sender was looked at
     * @param basket whose they are; null means as they were sent
     * @param item what they are; null means as they were sent
     * @param always whether files like these go past the tray from now on
     * @return the act, by which it is taken back
     * @throws Problem with status 409 when somebody decided meanwhile
     */
    long decide(List<Long> chosen, List<Long> senders, @Nullable Long basket, @Nullable Long item, boolean always, long account) {
        List<ReceivedFile> its = files.byIds(chosen);
        if (its.isEmpty() || its.size() < chosen.size() || its.stream().anyMatch(file -> file.keptApart() || !file.inTray() && !senders.contains(file.submissionId()))) {
            throw Problem.conflict("changed-elsewhere");
        }
        long round = its.get(0).roundId();
        if (its.stream().anyMatch(file -> file.roundId() != round)) {
            throw Problem.refused("tray-one-round");
        }
        check(round, basket, item);
        List<TrayTable.FileBefore> before = its.stream().map(file -> new TrayTable.FileBefore(file.id(), file.basketId(), file.itemId(), file.inTray(), file.assigned())).toList();
        RuleSet kept = always ? alwaysThis(round, its, basket, item, account) : null;
        long act;
        try {
            act = keep(its, senders, basket, item, account, new TrayTable.Before(before, senders, kept == null ? null : round, kept == null ? 0 : kept.version() - 1, kept == null ? 0 : kept.version()));
        } catch (Problem refused) {
            // Nothing of a decision stays that did not come about.
            if (kept != null) {
                rules.back(round, kept.version(), kept.version() - 1, account);
            }
            throw refused;
        }
        bring(chosen, basket != null || item != null ? "assigned" : "accepted", account);
        return act;
    }

    private long keep(List<ReceivedFile> its, List<Long> senders, @Nullable Long basket, @Nullable Long item, long account, TrayTable.Before before) {
        return transactions.durably(() -> {
            for (ReceivedFile file : its) {
                long to = basket == null ? file.basketId() : basket;
                long as = item == null ? file.itemId() : item;
                if (!files.decide(file, to, as, file.assigned() || to != file.basketId())) {
                    throw Problem.conflict("changed-elsewhere");
                }
            }
            if (submissions.seeSenders(senders, clock.instant()) != senders.size()) {
                throw Problem.conflict("changed-elsewhere");
            }
            return table.insert(clock.instant(), account, before);
        });
    }

    private void check(long round, @Nullable Long basket, @Nullable Long item) {
        if (basket != null && baskets.byIds(List.of(basket)).stream().noneMatch(one -> one.roundId() == round && !one.removed())) {
            throw Problem.field("basketId", "tray-person");
        }
        if (item != null && rounds.items(round).stream().noneMatch(one -> one.id() == item)) {
            throw Problem.field("itemId", "tray-item");
        }
    }

    /** Makes a rule out of a decision: what is of this person and item goes where the round says, before any rule that would send it here. */
    private RuleSet alwaysThis(long roundId, List<ReceivedFile> its, @Nullable Long basket, @Nullable Long item, long account) {
        Round round = rounds.opened(roundId);
        Map<Long, String> people = baskets.names(its.stream().map(file -> basket == null ? file.basketId() : basket).distinct().toList());
        Map<Long, String> titles = rounds.items(roundId).stream().collect(Collectors.toMap(Item::id, one -> one.spec().title()));
        List<FilingRule> all = new ArrayList<>();
        for (ReceivedFile file : its) {
            List<Condition> conditions = List.of(new Condition(Subject.PERSON, Test.IS, people.getOrDefault(basket == null ? file.basketId() : basket, "")),
                    new Condition(Subject.ITEM, Test.IS, titles.getOrDefault(item == null ? file.itemId() : item, "")));
            FilingRule rule = FilingRuleBuilder.builder().name("").active(true).join(FilingRule.Join.ALL).conditions(conditions).place(new Placement(0, round.folderPattern(), "")).copies(List.of()).mark("")
                    .tell("").build();
            if (!all.contains(rule)) {
                all.add(rule);
            }
        }
        RuleSet now = rules.of(roundId);
        all.addAll(now.rules());
        return rules.change(roundId, now.version(), all, account);
    }

    /**
     * Takes a decision back: the files are whose and what they were, and wait again.
     *
     * @throws Problem with status 409 when it was taken back already
     */
    void undo(long act, long account) {
        TrayTable.Before before = table.standing(act).orElseThrow(() -> Problem.conflict("undone-already"));
        List<Long> its = before.files().stream().map(TrayTable.FileBefore::file).toList();
        if (Acting.restricted() && files.byIds(its).size() < its.size()) {
            throw Problem.notFound("no-file");
        }
        Long round = before.round();
        if (round != null && rules.of(round).version() == before.rulesAfter()) {
            rules.back(round, before.rulesAfter(), before.rulesBefore(), account);
        }
        transactions.durably(() -> {
            if (table.undo(act, clock.instant()) != 1) {
                throw Problem.conflict("undone-already");
            }
            before.files().forEach(file -> files.undecide(file.file(), file.basket(), file.item(), file.assigned()));
            submissions.seeSenders(before.senders(), null);
        });
        bring(before.files().stream().map(TrayTable.FileBefore::file).toList(), "undone", account);
    }

    private void bring(List<Long> chosen, String why, long account) {
        for (ReceivedFile file : files.byIds(chosen)) {
            refile.refile(file, Journal.Cause.by(Act.MOVED, Why.of(why), account));
            live.publish(new LiveEvent("basket", file.roundId(), file.basketId()));
        }
        live.publish(new LiveEvent(LiveEvent.FILING, 0, null));
    }

    /** Who may be meant in a round. */
    List<Basket> people(long round) {
        return baskets.ofRound(round).stream().filter(basket -> !basket.removed()).toList();
    }
}
