package oakbasket.server.person;

import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import oakbasket.core.round.RoundState;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.board.Board;
import oakbasket.server.board.BoardItem;
import oakbasket.server.contact.Contact;
import oakbasket.server.contact.Contacts;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Item;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import oakbasket.server.storage.Known;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** One contact's page: every round they were ever in, what they sent, when and how late, and what was said to them. */
@Service
class PersonPages {

    /** A file this person sent. */
    record SentFile(long id, String item, String name, Instant receivedAt, String review, String reviewReason) {
    }

    /**
     * A round this person is or was in.
     *
     * @param askedAt when the link was handed over; null when it was not
     */
    record InRound(long roundId, String title, RoundState state, Board.Row row, List<BoardItem> items, @Nullable Instant askedAt, List<SentFile> files) {
    }

    record PersonPage(Contact contact, List<Contact> merged, List<InRound> rounds) {
    }

    private final Contacts contacts;
    private final Baskets baskets;
    private final Board board;
    private final Rounds rounds;
    private final ReceivedFiles files;

    PersonPages(Contacts contacts, Baskets baskets, Board board, Rounds rounds, ReceivedFiles files) {
        this.contacts = contacts;
        this.baskets = baskets;
        this.board = board;
        this.rounds = rounds;
        this.files = files;
    }

    /** The page of a contact, with what came under the addresses merged into it. */
    PersonPage of(long id) {
        List<Long> all = contacts.withMerged(id);
        Contact contact = contacts.byId(id);
        List<Contact> merged = contacts.byIds(all).values().stream().filter(other -> other.id() != id).sorted(Comparator.comparing(Contact::name)).toList();
        return new PersonPage(contact, merged, inRounds(baskets.ofContacts(all)));
    }

    private List<InRound> inRounds(List<Basket> in) {
        List<Long> ids = in.stream().map(Basket::roundId).distinct().toList();
        Map<Long, Round> known = rounds.opened(ids).stream().collect(Collectors.toMap(Round::id, round -> round));
        Map<Long, List<Item>> items = rounds.itemsOf(ids);
        Map<Long, Board.Row> rows = board.judgeBaskets(in).stream().collect(Collectors.toMap(Board.Row::id, row -> row));
        Map<Long, List<ReceivedFile>> sent = files.ofBaskets(in.stream().map(Basket::id).toList()).stream().collect(Collectors.groupingBy(ReceivedFile::basketId));
        Map<Long, String> titles = rounds.itemTitles(sent.values().stream().flatMap(List::stream).map(ReceivedFile::itemId).distinct().toList());
        return in.stream().map(basket -> {
            Round round = Known.in(known, basket.roundId());
            return new InRound(round.id(), round.title(), round.state(), Known.in(rows, basket.id()), BoardItem.of(items.getOrDefault(round.id(), List.of())), basket.askedAt(),
                    sent.getOrDefault(basket.id(), List.of()).stream().map(file -> sent(file, titles)).toList());
        }).toList();
    }

    private static SentFile sent(ReceivedFile file, Map<Long, String> titles) {
        return new SentFile(file.id(), titles.getOrDefault(file.itemId(), ""), file.storedName(), file.receivedAt(), file.review().name(), file.reviewReason());
    }
}
