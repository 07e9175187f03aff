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
 * Files what is attached to a message: by itself where it is sure who sent it, which basket is meant and which item, and the item takes it; everything else waits in the tray with what is supposed. What an item would refuse on
 * the page is refused here.
 */
@Component
class MailedPapers {

    /** What became of what was attached. */
    record Filed(List<InwardPart> parts, @Nullable Long submissionId, @Nullable Long basketId, @Nullable Long roundId) {
    }

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
    Filed file(InwardMessage message, List<ReadMail.Part> attached, ReadMail mail, Matching.Match match) throws IOException {
        Basket basket = basket(attached, match);
        Contact contact = match.contact();
        Sure sure = basket != null && contact != null && match.trust() == MailTrust.CONFIRMED ? new Sure(basket, contact) : null;
        Words spoken = words.in(contact == null ? Locale.ENGLISH : SenderLanguages.ofTag(contact.language()).orElse(Locale.ENGLISH));
        List<InwardPart> parts = new ArrayList<>();
        for (int no = 0; no < attached.size(); no++) {
            ReadMail.Part part = attached.get(no);
            try {
                parts.add(one(message, no, part, mail, basket, sure, words.of(why(match, basket))));
            } catch (Problem refused) {
                if (refused.code().equals("tray-full")) {
                    throw refused;
                }
                parts.add(part(message, no, part, InwardPart.Outcome.REFUSED, refused.code().equals("unreadable") ? spoken.of("inward.part-broken") : said(spoken, refused)));
            }
        }
        Long submission = sure == null || parts.stream().noneMatch(part -> part.outcome() == InwardPart.Outcome.FILED) ? null : (Long) sending(message, sure, mail.text()).id();
        return new Filed(parts, submission, basket == null ? null : (Long) basket.id(), basket == null ? null : (Long) basket.roundId());
    }

    private InwardPart one(InwardMessage message, int no, ReadMail.Part part, ReadMail mail, @Nullable Basket basket, @Nullable Sure sure, String trayWhy) throws IOException {
        if (!part.whole()) {
            throw Problem.unreadable("unreadable");
        }
        String key = "mail-" + message.id() + "-" + no;
        boolean fresh = loose.mailed(key).isEmpty();
        Item item = sure == null ? null : item(part, sure.basket()).orElse(null);
        if (sure != null && item != null && fresh) {
            arrivals.check(part.path(), part.name(), part.bytes(), rounds.opened(sure.basket().roundId()), item);
        }
        LooseFile paper = loose.takeMailed(key, part.path(), part.name(), mail.from(), basket == null ? null : (Long) basket.id());
        Long filed = paper.fileId();
        if (filed == null && sure != null && item != null) {
            filed = filing.fileMailed(paper, sending(message, sure, mail.text()), sure.basket().roundId(), item).orElse(null);
        }
        if (filed == null) {
            return new InwardPart(message.id(), no, part.name(), part.bytes(), InwardPart.Outcome.TRAY, trayWhy, "", paper.id(), null);
        }
        return new InwardPart(message.id(), no, part.name(), part.bytes(), InwardPart.Outcome.FILED, "", title(filed), paper.id(), filed);
    }

    private String title(long fileId) {
        return files.find(fileId).map(file -> rounds.itemTitles(List.of(file.itemId())).getOrDefault(file.itemId(), "")).orElse("");
    }

    private static InwardPart part(InwardMessage message, int no, ReadMail.Part part, InwardPart.Outcome outcome, String why) {
        return new InwardPart(message.id(), no, part.name(), part.bytes(), outcome, why, "", null, null);
    }

    private Submission sending(InwardMessage message, Sure sure, String text) {
        Person sender = new Person(sure.contact().name(), MailAddress.parse(sure.contact().email()));
        return transactions.durably(() -> submissions.byMail(sure.basket(), sender, text, "mail-" + message.id()));
    }

    /** The basket that is meant: the only one, or of several the one with an item that is called like what was attached. */
    private @Nullable Basket basket(List<ReadMail.Part> attached, Matching.Match match) {
        if (match.certain()) {
            return match.baskets().get(0);
        }
        List<Basket> named = match.baskets().stream().filter(basket -> attached.stream().anyMatch(part -> guess(part, rounds.items(basket.roundId())).filter(guess -> !guess.words().isEmpty()).isPresent())).toList();
        return named.size() == 1 ? named.get(0) : null;
    }

    private static Optional<ItemGuess.Guess> guess(ReadMail.Part part, List<Item> items) {
        return ItemGuess.of(part.name(), items.stream().map(item -> new ItemGuess.Item(item.id(), item.spec().title(), item.spec().kinds())).toList());
    }

    /** The item that a file is for: among those that are asked of this person and take one more, the one that its name or kind tells, or the only one that is still owed. */
    private Optional<Item> item(ReadMail.Part part, Basket basket) {
        List<Item> items = rounds.items(basket.roundId());
        List<Tile> tiles = board.judgeBasket(basket.id()).tiles();
        List<Item> open = new ArrayList<>();
        List<Item> owed = new ArrayList<>();
        for (int i = 0; i < items.size(); i++) {
            Tile tile = tiles.get(i);
            boolean room = tile.files() < items.get(i).spec().maxFiles() || tile.standing() == ItemStanding.RETURNED;
            if (room && tile.standing() != ItemStanding.NOT_OWED && tile.standing() != ItemStanding.WAIVED) {
                open.add(items.get(i));
                if (tile.owed()) {
                    owed.add(items.get(i));
                }
            }
        }
        Optional<ItemGuess.Guess> guess = guess(part, open);
        return guess.flatMap(found -> open.stream().filter(item -> item.id() == found.item()).findFirst()).or(() -> owed.size() == 1 ? Optional.of(owed.get(0)) : Optional.empty());
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
