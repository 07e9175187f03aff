package oakbasket.server.search;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import oakbasket.core.naming.Folded;
import oakbasket.core.receipt.ReceiptCode;
import oakbasket.core.team.Permission;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.basket.Submissions;
import oakbasket.server.contact.Contacts;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Rounds;
import oakbasket.server.security.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Finds people, rounds, files and receipt codes by a few letters of them. */
@RestController
@Needs(Permission.CHANGE)
class SearchController {

    private static final int MOST_OF_A_KIND = 6;
    private static final int SHORTEST = 2;
    private static final int LONGEST = 100;

    /** What was found; {@code kind} is {@code person}, {@code round}, {@code file} or {@code receipt}. */
    record Hit(String kind, String name, String detail, @Nullable Long contactId, @Nullable Long roundId, @Nullable Long basketId, boolean draft) {
    }

    private final Contacts contacts;
    private final Rounds rounds;
    private final ReceivedFiles files;
    private final Submissions submissions;
    private final Baskets baskets;

    SearchController(Contacts contacts, Rounds rounds, ReceivedFiles files, Submissions submissions, Baskets baskets) {
        this.contacts = contacts;
        this.rounds = rounds;
        this.files = files;
        this.submissions = submissions;
        this.baskets = baskets;
    }

    @GetMapping("/api/search")
    List<Hit> search(@RequestParam(defaultValue = "") String find) {
        String words = find.strip();
        List<Hit> hits = new ArrayList<>();
        if (words.length() < SHORTEST || words.length() > LONGEST) {
            return hits;
        }
        receipt(words, hits);
        contacts.find(words, MOST_OF_A_KIND).forEach(one -> hits.add(new Hit("person", one.name(), one.email(), one.id(), null, null, false)));
        rounds.composed().stream().filter(head -> Folded.of(head.title()).contains(Folded.of(words))).limit(MOST_OF_A_KIND)
                .forEach(head -> hits.add(new Hit("round", head.title(), head.state().name(), null, head.id(), null, head.state() == oakbasket.core.round.RoundState.DRAFT)));
        List<ReceivedFile> named = files.named(words, MOST_OF_A_KIND);
        Map<Long, String> names = baskets.names(named.stream().map(ReceivedFile::basketId).distinct().toList());
        named.forEach(file -> hits.add(new Hit("file", file.storedName(), names.getOrDefault(file.basketId(), ""), null, file.roundId(), file.basketId(), false)));
        return hits;
    }

    private void receipt(String words, List<Hit> hits) {
        try {
            ReceiptCode code = ReceiptCode.parse(words);
            submissions.byReceipt(code.text()).ifPresent(sending -> {
                if (sending.basketId() == null) {
                    return;
                }
                Basket basket = baskets.byId(sending.basketId());
                hits.add(new Hit("receipt", code.toString(), contacts.byId(basket.contactId()).name(), null, basket.roundId(), basket.id(), false));
            });
        } catch (IllegalArgumentException notACode) {
            // Most words are none; that is not worth telling.
            return;
        }
    }
}
