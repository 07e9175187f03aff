package oakbasket.server.filing;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import oakbasket.core.filing.FilingDecision;
import oakbasket.core.filing.FilingFacts;
import oakbasket.core.filing.FilingPlan;
import oakbasket.core.filing.FilingRule;
import oakbasket.core.filing.Place;
import oakbasket.core.filing.TrialRun;
import oakbasket.core.round.RoundState;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.basket.Submission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.Contacts;
import oakbasket.server.filing.Circumstances.Sent;
import oakbasket.server.journal.Why;
import oakbasket.server.problem.Problem;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.rules.RuleSets;
import oakbasket.server.security.Hash;
import oakbasket.server.storage.FileStore;
import oakbasket.server.storage.Known;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** What rules would do to files that are here already. Nothing is moved. */
@Service
public class Trials {

    /** The most files that are tried at once. */
    public static final int MOST_FILES = 200_000;
    private static final int SEAL_BYTES = 16;

    /** A file with what the rules decide of it. */
    public record Tried(ReceivedFile file, FilingDecision decision, Why why) {
    }

    /**
     * What would happen.
     *
     * @param tried every file that was looked at, by its id
     * @param apart how many files were not looked at because they are claimed
     * @param unreachable how many would go where nothing can be put now; they stay
     * @param last the highest id of a file that was looked at
     * @param seal stands for exactly these moves
     */
    public record Trial(Map<Long, Tried> tried, TrialRun.Outcome outcome, int apart, int unreachable, long last, String seal) {
    }

    private final Rounds rounds;
    private final Baskets baskets;
    private final Contacts contacts;
    private final Submissions submissions;
    private final ReceivedFiles files;
    private final RuleSets rules;
    private final Circumstances circumstances;
    private final Filing filing;
    private final FileStore store;

    Trials(Rounds rounds, Baskets baskets, Contacts contacts, Submissions submissions, ReceivedFiles files, RuleSets rules, Circumstances circumstances, Filing filing, FileStore store) {
        this.rounds = rounds;
        this.baskets = baskets;
        this.contacts = contacts;
        this.submissions = submissions;
        this.files = files;
        this.rules = rules;
        this.circumstances = circumstances;
        this.filing = filing;
        this.store = store;
    }

    /**
     * Tries rules.
     *
     * @param scope a round; {@link RuleSets#OFFICE} stands for all that gather or are closed
     * @param other the rules of this scope as they might be; null means as they are
     * @param until only files with an id up to this one
     * @throws Problem with status 422 when there are more than {@link #MOST_FILES} files
     */
    public Trial of(long scope, @Nullable List<FilingRule> other, long until) {
        List<Round> tried = scope == RuleSets.OFFICE
                ? rounds.opened(rounds.all().stream().filter(head -> head.state() == RoundState.GATHERING || head.state() == RoundState.CLOSED).map(Rounds.Head::id).toList()) : List.of(rounds.opened(scope));
        Map<Long, FilingPlan> plans = new HashMap<>();
        for (Round round : tried) {
            plans.put(round.id(), other == null ? rules.plan(round)
                    : RuleSets.planWith(round, scope == RuleSets.OFFICE ? rules.of(round.id()).rules() : other, scope == RuleSets.OFFICE ? other : rules.of(RuleSets.OFFICE).rules()));
        }
        List<ReceivedFile> all = files.allOfRounds(plans.keySet()).stream().filter(file -> file.id() <= until).toList();
        if (all.size() > MOST_FILES) {
            throw Problem.refused("trial-too-many", MOST_FILES, all.size());
        }
        List<ReceivedFile> looked = all.stream().filter(file -> !file.keptApart()).toList();
        Map<Long, Tried> decided = decide(looked, plans, tried.stream().collect(Collectors.toMap(Round::id, round -> round)));
        return weigh(decided, all.size() - looked.size());
    }

    private Map<Long, Tried> decide(List<ReceivedFile> looked, Map<Long, FilingPlan> plans, Map<Long, Round> byId) {
        Map<Long, Basket> ofBaskets = byId(baskets.byIds(ids(looked.stream().map(ReceivedFile::basketId).toList())), Basket::id);
        Map<Long, Contact> people = contacts.byIds(ids(ofBaskets.values().stream().map(Basket::contactId).toList()));
        Map<Long, Submission> sendings = byId(submissions.byIds(ids(looked.stream().map(ReceivedFile::submissionId).toList())), Submission::id);
        Map<Long, String> items = rounds.itemTitles(ids(looked.stream().map(ReceivedFile::itemId).toList()));
        Map<String, Integer> ranks = new HashMap<>();
        Map<Long, Tried> decided = new LinkedHashMap<>();
        for (ReceivedFile file : looked) {
            Basket basket = Known.in(ofBaskets, file.basketId());
            int rank = ranks.merge(file.basketId() + "/" + file.itemId(), 1, Integer::sum);
            FilingPlan plan = Known.in(plans, file.roundId());
            FilingFacts facts = circumstances.of(Known.in(byId, file.roundId()), basket, Known.in(people, basket.contactId()), Known.in(sendings, file.submissionId()),
                    items.getOrDefault(file.itemId(), ""), Sent.of(file), rank);
            FilingDecision ruled = plan.decide(facts);
            FilingDecision decision = file.trayDecided() ? ruled.pastTray() : ruled;
            decided.put(file.id(), new Tried(file, decision, Filing.why(plan, decision)));
        }
        return decided;
    }

    private Trial weigh(Map<Long, Tried> decided, int apart) {
        List<TrialRun.Candidate> candidates = new ArrayList<>();
        Map<String, Boolean> reachable = new HashMap<>();
        int unreachable = 0;
        long last = 0;
        for (Tried one : decided.values()) {
            String folder = filing.folderOf(one.decision());
            boolean can = reachable.computeIfAbsent(folder, path -> store.obstacle(path + "/x") == null);
            unreachable += can ? 0 : 1;
            String from = one.file().storedPath();
            candidates.add(can ? new TrialRun.Candidate(one.file().id(), from, folder, one.decision().target().name()) : new TrialRun.Candidate(one.file().id(), from, Place.folder(from), Place.name(from)));
            last = Math.max(last, one.file().id());
        }
        TrialRun.Outcome outcome = TrialRun.of(candidates, filing::taken);
        return new Trial(decided, outcome, apart, unreachable, last, seal(outcome));
    }

    private static String seal(TrialRun.Outcome outcome) {
        MessageDigest digest = Hash.sha256();
        outcome.moves().forEach(move -> digest.update((move.file() + "\n" + move.from() + "\n" + move.to() + "\n").getBytes(StandardCharsets.UTF_8)));
        return HexFormat.of().formatHex(digest.digest(), 0, SEAL_BYTES);
    }

    private static List<Long> ids(Collection<Long> some) {
        return some.stream().distinct().toList();
    }

    private static <T> Map<Long, T> byId(Collection<T> some, Function<T, Long> id) {
        return some.stream().collect(Collectors.toMap(id, one -> one));
    }
}
