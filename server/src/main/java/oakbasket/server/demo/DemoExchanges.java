package oakbasket.server.demo;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import oakbasket.core.exchange.ExchangeTerms;
import oakbasket.core.standing.Review;
import oakbasket.server.basket.Submission;
import oakbasket.server.basket.Submissions;
import oakbasket.server.exchange.Exchange;
import oakbasket.server.exchange.PastExchanges;
import oakbasket.server.link.Links;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.round.Item;
import oakbasket.server.round.Rounds;
import oakbasket.server.upload.Uploads;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;

/** Whom the office of the demo works on papers with for a while. */
@Component
@ConditionalOnProperty("oakbasket.demo")
class DemoExchanges {

    private final PastExchanges exchanges;
    private final Rounds rounds;
    private final Links links;
    private final Submissions submissions;
    private final Uploads uploads;
    private final ReceivedFiles files;
    private final Instant now;

    DemoExchanges(PastExchanges exchanges, Rounds rounds, Links links, Submissions submissions, Uploads uploads, ReceivedFiles files, Clock clock) {
        this.exchanges = exchanges;
        this.rounds = rounds;
        this.links = links;
        this.submissions = submissions;
        this.uploads = uploads;
        this.files = files;
        this.now = clock.instant().truncatedTo(ChronoUnit.MINUTES);
    }

    void make(long account) {
        Exchange deed = exchanges.make(account, "Boundary deed, Oakley weir", "We settle the line of the boundary here until all three of us have signed.", DemoPeople.LANDOWNERS.get(1).person(),
                "Your papers", new ExchangeTerms(true, true, true, true));
        exchanges.accept(deed);
        Map<String, byte[]> lying = new LinkedHashMap<>();
        lying.put("Deed, second draft.pdf", DemoFiles.pdf("Boundary deed", List.of("Second draft", "The line follows the old mill race")));
        lying.put("Weir from the east.png", DemoFiles.photo(31, "png"));
        exchanges.lay(deed, lying, 1);
        send(deed, "old map.png", DemoFiles.photo(12, "png"), now.minus(Duration.ofDays(2)), Review.ACCEPTED, "");
        ReceivedFile form = send(deed, "consent form.pdf", DemoFiles.pdf("Consent", List.of("Signed for the wrong field")), now.minus(Duration.ofHours(20)), Review.RETURNED, "It names the north field; we need the east one.");
        exchanges.lay(deed, Map.of("Consent form, east field.pdf", DemoFiles.pdf("Consent", List.of("East field", "Please sign at the cross"))), 0);
        exchanges.answers(deed, form);
        send(deed, "photo of the marker.png", DemoFiles.photo(55, "png"), now.minus(Duration.ofHours(1)), Review.NONE, "");
        exchanges.make(account, "Survey contract", "", DemoPeople.SURVEYORS.get(4).person(), "", new ExchangeTerms(true, true, false, true));
    }

    private ReceivedFile send(Exchange exchange, String name, byte[] content, Instant at, Review review, String reason) {
        Item item = rounds.items(exchange.roundId()).get(0);
        Submission sending = submissions.backdated(links.ofBasket(exchange.basketId()).orElseThrow(), null, at);
        uploads.receiveWhole(sending, item, name, content, at);
        ReceivedFile file = files.ofSubmission(sending.id()).get(0);
        if (review != Review.NONE) {
            files.backdate(file.id(), review, reason, now.minus(Duration.ofMinutes(40)));
        }
        return file;
    }
}
