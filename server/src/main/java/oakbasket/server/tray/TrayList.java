package oakbasket.server.tray;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import oakbasket.core.contact.SamePerson;
import oakbasket.core.filing.ItemGuess;
import oakbasket.core.identity.Claim;
import oakbasket.core.identity.Identity;
import oakbasket.server.basket.Baskets;
import oakbasket.server.basket.Submission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.Contacts;
import oakbasket.server.journal.Act;
import oakbasket.server.journal.Journal;
import oakbasket.server.journal.JournalFilter;
import oakbasket.server.journal.WhyWords;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Item;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.Known;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** What waits in the tray, with what may be meant and why. */
@Component
class TrayList {

    static final int MOST = 300;

    /** Why something waits. */
    enum Cause {
        /** A rule sent it here. */
        RULE,
        /** Its sender gave the name of somebody asked, and nobody has checked it. */
        CLAIM,
        /** Its sender was not asked, and only says who they are. */
        SELF_DECLARED,
        /** It came without a link. */
        OTHER_WAY
    }

    record TrayFile(long id, String name, long bytes, String mediaType, long itemId, String item) {
    }

    /** What may be meant; {@code why} says what speaks for it. */
    record Suggestion(@Nullable Long basketId, String person, String personWhy, @Nullable Long itemId, String item, String itemWhy) {
    }

    /** Something that waits: one file of a rule, all files of a sending, or one paper that came without a link; such a one has no submission, and the round that is supposed. */
    record TrayEntry(String key, Cause cause, long submissionId, long roundId, String round, long basketId, String person, String sender, Identity identity, Instant receivedAt, String why, List<TrayFile> files,
            boolean foundOnDisk, Suggestion suggestion) {
    }

    private final ReceivedFiles files;
    private final Submissions submissions;
    private final Baskets baskets;
    private final Contacts contacts;
    private final Rounds rounds;
    private final Journal journal;
    private final LooseList loose;
    private final WhyWords reasons;
    private final Words words;

    TrayList(ReceivedFiles files, Submissions submissions, Baskets baskets, Contacts contacts, Rounds rounds, Journal journal, LooseList loose, WhyWords reasons, Words words) {
        this.files = files;
        this.submissions = submissions;
        this.baskets = baskets;
        this.contacts = contacts;
        this.rounds = rounds;
        this.journal = journal;
        this.loose = loose;
        this.reasons = reasons;
        this.words = words;
    }

    List<TrayEntry> all() {
        List<ReceivedFile> ofRules = files.inTray(MOST);
        List<Submission> undecided = submissions.undecided(MOST);
        Map<Long, Submission> sendings = new HashMap<>();
        submissions.byIds(ofRules.stream().map(ReceivedFile::submissionId).distinct().toList()).forEach(one -> sendings.put(one.id(), one));
        undecided.forEach(one -> sendings.put(one.id(), one));
        List<ReceivedFile> all = new ArrayList<>(ofRules);
        Map<Long, List<ReceivedFile>> ofSendings = new HashMap<>();
        for (Submission one : undecided) {
            ofSendings.put(one.id(), files.ofSubmission(one.id()).stream().filter(file -> !file.inTray()).toList());
            all.addAll(Known.in(ofSendings, one.id()));
        }
        Map<Long, String> people = baskets.names(all.stream().map(ReceivedFile::basketId).distinct().toList());
        Map<Long, String> titles = rounds.all().stream().collect(Collectors.toMap(Rounds.Head::id, Rounds.Head::title));
        Map<Long, List<Item>> items = rounds.itemsOf(all.stream().map(ReceivedFile::roundId).distinct().toList());
        Map<Long, String> itemTitles = rounds.itemTitles(all.stream().map(ReceivedFile::itemId).distinct().toList());
        Map<Long, List<Person>> askedOf = new HashMap<>();
        List<TrayEntry> entries = new ArrayList<>(loose.all());
        for (ReceivedFile file : ofRules) {
            entries.add(entry(Cause.RULE, Known.in(sendings, file.submissionId()), List.of(file), people, titles, items, itemTitles, askedOf));
        }
        for (Submission one : undecided) {
            List<ReceivedFile> its = Known.in(ofSendings, one.id());
            if (!its.isEmpty()) {
                entries.add(entry(one.claim() == Claim.OPEN ? Cause.CLAIM : Cause.SELF_DECLARED, one, its, people, titles, items, itemTitles, askedOf));
            }
        }
        return entries.stream().sorted(Comparator.comparing(TrayEntry::receivedAt)).limit(MOST).toList();
    }

    private TrayEntry entry(Cause cause, Submission sending, List<ReceivedFile> its, Map<Long, String> people, Map<Long, String> titles, Map<Long, List<Item>> items, Map<Long, String> itemTitles,
            Map<Long, List<Person>> askedOf) {
        ReceivedFile first = its.get(0);
        String sender = sending.declaredName() == null ? "" : sending.declaredName() + " <" + sending.declaredEmail() + ">";
        String why = cause == Cause.RULE ? journal.found(new JournalFilter(first.id(), null, null, null, null, null, null, null), 1).stream()
                .filter(entry -> entry.act() == Act.PLACED || entry.act() == Act.MOVED).map(entry -> reasons.of(entry.why())).findFirst().orElse("") : words.of("tray." + cause);
        List<TrayFile> shown = its.stream().map(file -> new TrayFile(file.id(), file.originalName(), file.sizeBytes(), file.mediaType(), file.itemId(), itemTitles.getOrDefault(file.itemId(), ""))).toList();
        return new TrayEntry(cause == Cause.RULE ? "file-" + first.id() : "sending-" + sending.id(), cause, sending.id(), first.roundId(), Known.in(titles, first.roundId()), first.basketId(),
                people.getOrDefault(first.basketId(), ""), sender, sending.identity(), first.receivedAt(), why, shown, false,
                suggestion(cause, sending, first, people, items.getOrDefault(first.roundId(), List.of()), askedOf.computeIfAbsent(first.roundId(), this::asked)));
    }

    private record Person(long basket, Contact contact, boolean walkIn) {
    }

    private List<Person> asked(long round) {
        var ofRound = baskets.ofRound(round).stream().filter(basket -> !basket.removed()).toList();
        Map<Long, Contact> known = contacts.byIds(ofRound.stream().map(basket -> basket.contactId()).toList());
        return ofRound.stream().filter(basket -> known.containsKey(basket.contactId())).map(basket -> new Person(basket.id(), Known.in(known, basket.contactId()), basket.walkIn())).toList();
    }

    private Suggestion suggestion(Cause cause, Submission sending, ReceivedFile file, Map<Long, String> people, List<Item> items, List<Person> asked) {
        Long basket = file.basketId();
        String person = people.getOrDefault(file.basketId(), "");
        String personWhy = words.of(cause == Cause.RULE ? "tray.person-sent" : cause == Cause.CLAIM ? "tray.person-address" : "tray.person-said");
        String said = sending.declaredName();
        if (cause == Cause.SELF_DECLARED && said != null) {
            Person like = asked.stream().filter(one -> !one.walkIn()).max(Comparator.comparingDouble(one -> SamePerson.likeness(one.contact().name(), said))).orElse(null);
            if (like != null && SamePerson.likeness(like.contact().name(), said) >= SamePerson.NEAR) {
                basket = like.basket();
                person = like.contact().name();
                personWhy = words.of("tray.person-like", said);
            }
        }
        ItemGuess.Guess guess = ItemGuess.of(file.originalName(), items.stream().map(item -> new ItemGuess.Item(item.id(), item.spec().title(), item.spec().kinds())).toList()).orElse(null);
        long item = guess == null || !guess.sure() ? file.itemId() : guess.item();
        String title = items.stream().filter(one -> one.id() == item).map(one -> one.spec().title()).findFirst().orElse("");
        String itemWhy = item == file.itemId() ? words.of("tray.item-sent") : words.of("tray.item-words", String.join(", ", Objects.requireNonNull(guess).words()));
        return new Suggestion(basket, person, personWhy, item, title, itemWhy);
    }
}
