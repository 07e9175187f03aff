package oakbasket.server.inward;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import oakbasket.core.filing.ItemGuess;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.core.inward.MailTrust;
import oakbasket.core.inward.MailedPart;
import oakbasket.core.standing.ItemStanding;
import oakbasket.core.standing.Tile;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Submission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.board.Board;
import oakbasket.server.contact.Contact;
import oakbasket.server.loose.LooseFile;
import oakbasket.server.loose.LooseFiles;
import oakbasket.server.loose.LooseFiling;
import oakbasket.server.problem.Problem;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Item;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.Transactions;
import oakbasket.server.upload.DeskArrivals;
import oakbasket.server.words.SenderLanguages;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * Files what is attached to a message: by itself where it is sure who sent it, which basket is meant and which item, and the item takes it; everything else that may be a paper waits in the tray with what is supposed. What an item would refuse on
 * the page is refused here.
 */
@Component
class MailedPapers {

    /** Something attached, and what it was sorted as. */
    record Sorted(ReadMail.Part part, MailedPart as, byte[] sha256) {
    }

    /** What became of one thing. @param alike the titles of items that it fits alike; empty where that is not why it waits */
    record Told(InwardPart part, List<String> alike) {
    }

    /** What became of what was attached. */
    record Filed(List<Told> told, @Nullable Long submissionId, @Nullable Long basketId, @Nullable Long roundId) {
        List<InwardPart> parts() {
            return told.stream().map(Told::part).toList();
        }
    }

    private static final int MOST_NAMED = 4;

    private final LooseFiles loose;
    private final LooseFiling filing;
    private final DeskArrivals arrivals;
    private final Submissions submissions;
    private final Rounds rounds;
    private final Board board;
    private final ReceivedFiles files;
    private final Transactions transactions;
    private final Words words;

    MailedPapers(LooseFiles loose, LooseFiling filing, DeskArrivals arrivals, Submissions submissions, Rounds rounds, Board board, ReceivedFiles files, Transactions transactions, Words words) {
        this.loose = loose;
        this.filing = filing;
        this.arrivals = arrivals;
        this.submissions = submissions;
        this.rounds = rounds;
        this.board = board;
        this.files = files;
        this.transactions = transactions;
        this.words = words;
    }

    /** A basket that is certain, with its person. */
    private record Sure(Basket basket, Contact contact) {
    }

    /** Files everything; asked again it goes on where it stopped. */
    Filed file(InwardMessage message, List<Sorted> attached, ReadMail mail, Matching.Match match) throws IOException {
        Basket basket = basket(attached, match);
        Contact contact = match.contact();
        Sure sure = basket != null && contact != null && match.trust() == MailTrust.CONFIRMED ? new Sure(basket, contact) : null;
        Words spoken = words.in(contact == null ? Locale.ENGLISH : SenderLanguages.ofTag(contact.language()).orElse(Locale.ENGLISH));
        List<Told> told = new ArrayList<>();
        for (int no = 0; no < attached.size(); no++) {
            Sorted one = attached.get(no);
            try {
                told.add(one.as() == MailedPart.NO_PAPER ? leftOut(message, no, one) : one(message, no, one, mail, basket, sure, why(match, basket)));
            } catch (Problem refused) {
                if (refused.code().equals("tray-full")) {
                    throw refused;
                }
                told.add(new Told(part(message, no, one, InwardPart.Outcome.REFUSED, refused.code().equals("unreadable") ? spoken.of("inward.part-broken") : said(spoken, refused)), List.of()));
            }
        }
        if (mail.unread() != ReadMail.Unread.NOTHING) {
            String limit = spoken.of("answer.rest-" + mail.unread(), MailReader.MOST_PARTS, MailReader.MOST_DEPTH);
            told.add(new Told(new InwardPart(message.id(), attached.size(), spoken.of("answer.rest"), 0, InwardPart.Outcome.REFUSED, limit, "", null, null, null), List.of()));
        }
        Long submission = sure == null || told.stream().noneMatch(one -> one.part().outcome() == InwardPart.Outcome.FILED) ? null : (Long) sending(message, sure).id();
        return new Filed(told, submission, basket == null ? null : (Long) basket.id(), basket == null ? null : (Long) basket.roundId());
    }

    private Told leftOut(InwardMessage message, int no, Sorted one) {
        String why = words.of(one.part().shownInText() ? "inward.in-the-text" : "inward.no-paper");
        return new Told(part(message, no, one, InwardPart.Outcome.LEFT_OUT, why), List.of());
    }

    private Told one(InwardMessage message, int no, Sorted sorted, ReadMail mail, @Nullable Basket basket, @Nullable Sure sure, String trayWhy) throws IOException {
        ReadMail.Part part = sorted.part();
        if (!part.whole()) {
            throw Problem.unreadable("unreadable");
        }
        String key = "mail-" + message.id() + "-" + no;
        boolean fresh = loose.mailed(key).isEmpty();
        List<Item> open = sure == null ? List.of() : open(sure.basket());
        Item full = sure == null || sorted.as() != MailedPart.PAPER ? null : full(part, rounds.items(sure.basket().roundId()), open);
        ItemGuess.Guess guess = sure == null || full != null || sorted.as() != MailedPart.PAPER ? null : guess(part, open).orElse(null);
        Item item = guess == null || sure == null || !guess.sure() ? null : rounds.items(sure.basket().roundId()).stream().filter(one -> one.id() == guess.item()).findFirst().orElse(null);
        if (sure != null && item != null && fresh) {
            arrivals.check(part.path(), part.name(), part.bytes(), rounds.opened(sure.basket().roundId()), item);
        }
        String from = part.forwardedFrom().isEmpty() ? mail.from() : part.forwardedFrom();
        LooseFile paper = loose.takeMailed(key, part.path(), part.name(), from, basket == null ? null : (Long) basket.id());
        Long filed = paper.fileId();
        if (filed == null && sure != null && item != null) {
            filed = filing.fileMailed(paper, sending(message, sure), sure.basket().roundId(), item).orElse(null);
        }
        String forwarded = part.forwardedFrom().isEmpty() ? "" : words.of("inward.forwarded", part.forwardedFrom());
        if (filed == null) {
            // Where a name fits half the checklist, naming it all helps nobody.
            List<String> alike = guess == null || sure == null || guess.alike().size() > MOST_NAMED ? List.of() : titles(guess.alike(), sure.basket().roundId());
            String why = full != null ? words.of("inward.item-full", full.spec().title()) : alike.isEmpty() ? words.of(trayWhy) : words.of("inward.which-of", String.join(", ", alike));
            return new Told(new InwardPart(message.id(), no, part.name(), part.bytes(), InwardPart.Outcome.TRAY, (why + " " + forwarded).strip(), "", paper.id(), null, sorted.sha256()), alike);
        }
        return new Told(new InwardPart(message.id(), no, part.name(), part.bytes(), InwardPart.Outcome.FILED, forwarded, title(filed), paper.id(), filed, sorted.sha256()), List.of());
    }

    /** The item that a name surely tells, where that takes no more; null where it takes one or nothing is sure. It is not filed under another item because of that. */
    private static @Nullable Item full(ReadMail.Part part, List<Item> all, List<Item> open) {
        return guess(part, all).filter(ItemGuess.Guess::sure).filter(guess -> open.stream().noneMatch(item -> item.id() == guess.item())).flatMap(guess -> all.stream().filter(item -> item.id() == guess.item()).findFirst())
                .orElse(null);
    }

    private List<String> titles(List<Long> items, long round) {
        return rounds.items(round).stream().filter(item -> items.contains(item.id())).map(item -> item.spec().title()).toList();
    }

    private String title(long fileId) {
        return files.find(fileId).map(file -> rounds.itemTitles(List.of(file.itemId())).getOrDefault(file.itemId(), "")).orElse("");
    }

    private static InwardPart part(InwardMessage message, int no, Sorted one, InwardPart.Outcome outcome, String why) {
        return new InwardPart(message.id(), no, one.part().name(), one.part().bytes(), outcome, why, "", null, null, one.sha256());
    }

    /** The sending of a message; its note is the text as it is kept, without what opens something. */
    private Submission sending(InwardMessage message, Sure sure) {
        Person sender = new Person(sure.contact().name(), MailAddress.parse(sure.contact().email()));
        return transactions.durably(() -> submissions.byMail(sure.basket(), sender, message.text(), "mail-" + message.id()));
    }

    /** The basket that is meant: the only one, or of several the one with an item that is called like what was attached. */
    private @Nullable Basket basket(List<Sorted> attached, Matching.Match match) {
        if (match.certain()) {
            return match.baskets().get(0);
        }
        List<Basket> named = match.baskets().stream().filter(basket -> attached.stream().anyMatch(one -> guess(one.part(), rounds.items(basket.roundId())).filter(ItemGuess.Guess::sure).isPresent())).toList();
        return named.size() == 1 ? named.get(0) : null;
    }

    private static Optional<ItemGuess.Guess> guess(ReadMail.Part part, List<Item> items) {
        return ItemGuess.of(part.name(), items.stream().map(item -> new ItemGuess.Item(item.id(), item.spec().title(), item.spec().kinds())).toList());
    }

    /** The items that are asked of this person and take one more file. */
    private List<Item> open(Basket basket) {
        List<Item> items = rounds.items(basket.roundId());
        List<Tile> tiles = board.judgeBasket(basket.id()).tiles();
        List<Item> open = new ArrayList<>();
        for (int i = 0; i < items.size(); i++) {
            Tile tile = tiles.get(i);
            boolean room = tile.files() < items.get(i).spec().maxFiles() || tile.standing() == ItemStanding.RETURNED;
            if (room && tile.standing() != ItemStanding.NOT_OWED && tile.standing() != ItemStanding.WAIVED) {
                open.add(items.get(i));
            }
        }
        return open;
    }

    private static String why(Matching.Match match, @Nullable Basket basket) {
        return match.contact() == null ? "inward.unknown-sender" : match.trust() == MailTrust.DECLARED ? "inward.unsure" : basket == null ? match.baskets().isEmpty() ? "inward.no-round" : "inward.which-round" : "inward.which-item";
    }

    /** A refusal as the page would say it. */
    private static String said(Words spoken, Problem refused) {
        Object[] arguments = refused.arguments().stream().map(one -> one instanceof Problem.Word word ? spoken.of(word.code()) : one).toArray();
        return spoken.of(refused.code() + ".detail", Arrays.copyOf(arguments, arguments.length));
    }
}
