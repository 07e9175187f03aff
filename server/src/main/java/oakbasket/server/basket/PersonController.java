package oakbasket.server.basket;

import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import oakbasket.core.round.RoundState;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.Contacts;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Item;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** One contact's page: every round they were ever in, what they sent, when and how late, and what was said to them. */
@RestController
class PersonController {

    /** A file this person sent. */
    record SentFile(long id, String item, String name, Instant receivedAt, String review, String reviewReason) {
    }

    /**
     * A round this person is or was in.
     *
     * @param askedAt when the link was handed over; null when it was not
     */
    record InRound(long roundId, String title, RoundState state, Board.Row row, List<BoardController.BoardItem> items, @Nullable Instant askedAt, List<SentFile> files) {
    }

    record PersonPage(Contact contact, List<Contact> merged, List<InRound> rounds) {
    }

    private final Contacts contacts;
    private final Baskets baskets;
    private final Board board;
    private final Rounds rounds;
    private final ReceivedFiles files;

    PersonController(Contacts contacts, Baskets baskets, Board board, Rounds rounds, ReceivedFiles files) {
        this.contacts = contacts;
        this.baskets = baskets;
        this.board = board;
        this.rounds = rounds;
        this.files = files;
    }

    @GetMapping("/api/contacts/{id}")
    PersonPage person(@PathVariable long id) {
        List<Long> all = contacts.withMerged(id);
        Contact contact = contacts.byId(id);
        List<Contact> merged = contacts.byIds(all).values().stream().filter(other -> other.id() != id).sorted(Comparator.comparing(Contact::name)).toList();
        return new PersonPage(contact, merged, baskets.ofContacts(all).stream().map(this::inRound).toList());
    }

    private InRound inRound(Basket basket) {
        Round round = rounds.opened(basket.roundId());
        List<Item> items = rounds.items(round.id());
        Map<Long, String> titles = items.stream().collect(Collectors.toMap(Item::id, item -> item.spec().title()));
        List<SentFile> sent = files.ofBasket(basket.id()).stream().map(file -> sent(file, titles)).toList();
        return new InRound(round.id(), round.title(), round.state(), board.judgeBasket(basket.id()), BoardController.items(items), basket.askedAt(), sent);
    }

    private SentFile sent(ReceivedFile file, Map<Long, String> titles) {
        String item = titles.containsKey(file.itemId()) ? titles.get(file.itemId()) : rounds.itemTitle(file.itemId());
        return new SentFile(file.id(), item, file.storedName(), file.receivedAt(), file.review().name(), file.reviewReason());
    }
}
