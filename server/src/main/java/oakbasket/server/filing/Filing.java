package oakbasket.server.filing;

import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.function.IntSupplier;
import oakbasket.core.filing.FilingDecision;
import oakbasket.core.filing.FilingFacts;
import oakbasket.core.filing.FilingPlan;
import oakbasket.core.filing.FilingRule;
import oakbasket.core.filing.Place;
import oakbasket.core.filing.RuleRef;
import oakbasket.core.naming.ClashNumber;
import oakbasket.core.naming.NameField;
import oakbasket.core.naming.SafeName;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Submission;
import oakbasket.server.contact.Contacts;
import oakbasket.server.filing.Circumstances.Sent;
import oakbasket.server.journal.Act;
import oakbasket.server.journal.Journal;
import oakbasket.server.journal.Why;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Item;
import oakbasket.server.round.Round;
import oakbasket.server.rules.RuleSets;
import oakbasket.server.storage.FileStore;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Chooses the folder and name of a file by the rules and its round's patterns, and says why; a name that is taken gets a number. */
@Service
public class Filing {

    private static final int MOST_REMEMBERED = 10_000;

    private final Contacts contacts;
    private final ReceivedFiles files;
    private final RuleSets rules;
    private final Circumstances circumstances;
    private final EffectTable effects;
    private final Journal journal;
    private final FileStore store;
    private final String claimedFolder;
    private final String trayFolder;
    private final String waitingFolder;
    /** The last number given out per name, so that the thousandth file of one name does not try a thousand names. */
    private final Map<String, Integer> numbers = new LinkedHashMap<>(16, 0.75f, true) {
        @Override
        protected boolean removeEldestEntry(Map.Entry<String, Integer> eldest) {
            return size() > MOST_REMEMBERED;
        }
    };

    Filing(Contacts contacts, ReceivedFiles files, RuleSets rules, Circumstances circumstances, EffectTable effects, Journal journal, FileStore store, Words words) {
        this.claimedFolder = SafeName.of(words.of("folder.claimed"));
        this.trayFolder = SafeName.of(words.of("folder.tray"));
        this.waitingFolder = SafeName.of(words.of("folder.waiting"));
        this.contacts = contacts;
        this.files = files;
        this.rules = rules;
        this.circumstances = circumstances;
        this.effects = effects;
        this.journal = journal;
        this.store = store;
    }

    /** A free place for a file that arrives. It lies on the disk of what arrives, so that nothing is copied while a sender waits. */
    public Chosen chooseForArrival(Round round, Basket basket, Submission submission, Item item, Sent sent) {
        return choose(round, basket, submission, item.spec().title(), sent, () -> files.countOfItem(basket.id(), item.id()) + 1, true, false);
    }

    /** A free place for a file that is here already. */
    public Chosen choose(Round round, Basket basket, Submission submission, String item, ReceivedFile file) {
        return choose(round, basket, submission, item, Sent.of(file), () -> files.rankOf(file), false, file.trayDecided());
    }

    private Chosen choose(Round round, Basket basket, Submission submission, String item, Sent sent, IntSupplier rank, boolean arriving, boolean pastTray) {
        FilingPlan plan = rules.plan(round);
        FilingFacts facts = circumstances.of(round, basket, contacts.byId(basket.contactId()), submission, item, sent, plan.uses(NameField.NUMBER) ? rank.getAsInt() : 1);
        if (submission.keptApart()) {
            // What is claimed lies in a folder of its own, never among the papers of the person it names, and no rule is asked.
            FilingDecision.Target plain = plan.unruled(facts);
            return settle(claimedFolder + "/" + plain.folder(), plain.name(), arriving, Why.of("claimed"), null);
        }
        FilingDecision decided = plan.decide(facts);
        FilingDecision decision = pastTray || submission.byDesk() && !submission.byMail() ? decided.pastTray() : decided;
        return settle(folderOf(decision), decision.target().name(), arriving, why(plan, decision), decision);
    }

    private Chosen settle(String folder, String name, boolean arriving, Why why, @Nullable FilingDecision decision) {
        String wanted = folder + "/" + name;
        FileStore.Obstacle obstacle = store.obstacle(wanted);
        String waits = obstacle != null ? code(obstacle) : arriving && Place.root(wanted) != Place.FIRST_ROOT ? "on-its-way" : null;
        return waits == null ? new Chosen(free(folder, name), null, wanted, why, decision) : new Chosen(free(waitingFolder, name), waits, wanted, why, decision);
    }

    /** The folder that a decision puts a file in. */
    public String folderOf(FilingDecision decision) {
        return decision.tray() ? trayFolder + "/" + decision.target().folder() : decision.target().folderPlace();
    }

    private static String code(FileStore.Obstacle obstacle) {
        return obstacle.name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    /** Why rules decided so. */
    public static Why why(FilingPlan plan, FilingDecision decision) {
        RuleRef ref = decision.placedBy();
        FilingRule.Join join = ref == null ? null : plan.joinOf(ref);
        return ref == null ? Why.of("round") : new Why(decision.tray() ? "rule-tray" : "rule", ref, decision.because(), join, null);
    }

    /** A free place in a folder. */
    public String free(String folder, String name) {
        String path = folder + "/" + name;
        if (!taken(path)) {
            return path;
        }
        do {
            path = folder + "/" + ClashNumber.on(name, nextNumber(ClashNumber.key(folder + "/" + name)));
        } while (taken(path));
        return path;
    }

    /** Whether something lies at a place, or has a right to it. */
    public boolean taken(String place) {
        return files.taken(place) || effects.copyAt(ClashNumber.key(place)) || Files.exists(store.resolve(place), LinkOption.NOFOLLOW_LINKS);
    }

    /** Writes down that a file got its first place, and what else the rules want. Runs in the caller's transaction. */
    public void placed(long file, long round, Chosen chosen) {
        journal.write(file, round, "", chosen.place(), Journal.Cause.of(Act.PLACED, chosen.why()));
        if (chosen.waits() != null) {
            effects.waits(file, chosen.waits(), chosen.wanted());
        }
        if (chosen.tray()) {
            files.tray(file, true);
        }
        beside(file, chosen, true, null);
    }

    /**
     * Writes down what the rules want besides the place a file has got. Runs in the caller's transaction.
     *
     * @param telling whether people are told, as of what has just come
     * @param batch the refiling it belongs to
     */
    public void settled(long file, Chosen chosen, boolean telling, @Nullable Long batch) {
        effects.waits(file, chosen.waits(), chosen.wanted());
        files.tray(file, chosen.tray());
        beside(file, chosen, telling, batch);
    }

    private void beside(long file, Chosen chosen, boolean telling, @Nullable Long batch) {
        FilingDecision decision = chosen.decision();
        if (decision != null) {
            decision.marks().forEach(mark -> effects.mark(file, mark, batch));
            decision.copies().forEach(copy -> effects.wantCopy(file, copy.target().place(), Effects.why(copy), batch));
            if (telling) {
                decision.tells().forEach(address -> effects.wantNotice(file, address, chosen.why()));
            }
        }
    }

    private int nextNumber(String key) {
        synchronized (numbers) {
            return numbers.merge(key, 2, (before, two) -> before + 1);
        }
    }
}
