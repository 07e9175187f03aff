package oakbasket.server.post;

import java.util.ArrayList;
import java.util.List;
import oakbasket.core.letter.LetterFacts;
import oakbasket.core.link.LinkState;
import oakbasket.server.Settings;
import oakbasket.server.contact.Contact;
import oakbasket.server.exchange.Exchange;
import oakbasket.server.exchange.Exchanges;
import oakbasket.server.link.Link;
import oakbasket.server.link.Links;
import oakbasket.server.parcel.ExchangeParcels;
import oakbasket.server.parcel.ParcelFile;
import oakbasket.server.round.Round;
import oakbasket.server.round.Rounds;
import org.springframework.stereotype.Component;

/** What a letter says of a place in which papers go in both directions: what lies there that its person has not taken away, as far as they may know of it. */
@Component
class ExchangeLetters {

    /** As many files are named; a letter is no list. */
    private static final int MOST_NAMED = 20;

    private final Exchanges exchanges;
    private final ExchangeParcels parcels;
    private final Links links;
    private final Rounds rounds;
    private final Settings settings;

    ExchangeLetters(Exchanges exchanges, ExchangeParcels parcels, Links links, Rounds rounds, Settings settings) {
        this.exchanges = exchanges;
        this.parcels = parcels;
        this.links = links;
        this.rounds = rounds;
        this.settings = settings;
    }

    /** Whether a letter about the exchange of a basket leads anywhere. */
    boolean isOpen(long basket) {
        return exchanges.ofBasket(basket).map(exchanges::linkState).filter(state -> state == LinkState.LIVE || state == LinkState.WAITING).isPresent();
    }

    LetterFacts.Papers papers(LetterLines lines, LetterWriter.Told told, Contact contact) {
        Round round = rounds.opened(told.roundId());
        Exchange exchange = exchanges.ofBasket(told.row().id()).orElseThrow();
        List<String> left = exchange.rights().namesFiles() ? parcels.lying(exchange.id(), exchange.wayId()).stream().filter(one -> one.file().state() == ParcelFile.State.READY && one.taken() == 0)
                .map(one -> LinkAddress.plain(one.file().fileName())).toList() : List.of();
        List<String> named = new ArrayList<>(left.subList(0, Math.min(MOST_NAMED, left.size())));
        if (left.size() > MOST_NAMED) {
            named.add(lines.moreFiles(left.size() - MOST_NAMED));
        }
        Link link = links.lastOf(told.row().id()).orElseThrow();
        return new LetterFacts.Papers(LinkAddress.plain(round.title()), LinkAddress.plain(round.note()), lines.openUntil(link.terms().window().end(), settings.zone(), contact.zone()), named,
                LinkAddress.mark(told.row().id()));
    }
}
