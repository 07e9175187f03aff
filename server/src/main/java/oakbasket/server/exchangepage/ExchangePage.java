package oakbasket.server.exchangepage;

import java.util.HexFormat;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import oakbasket.core.exchange.ExchangeAnswer;
import oakbasket.core.exchange.ExchangeRights;
import oakbasket.server.exchange.Exchange;
import oakbasket.server.exchange.Exchanges;
import oakbasket.server.link.Link;
import oakbasket.server.parcel.ExchangeParcels;
import oakbasket.server.parcel.ParcelFile;
import oakbasket.server.problem.Problem;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** What the person of an exchange may know of it: what they may do, and the files that lie there for them; nothing of what else there is. */
@Service
public class ExchangePage {

    /** How a file can be looked at. */
    public enum Look {
        PICTURE, PDF, TEXT, NONE
    }

    /**
     * A file that lies there for them.
     *
     * @param number stands for it in its addresses
     * @param sha256 in hexadecimal; empty for whoever may only look
     * @param taken how often they took it away whole
     * @param answers the name of the file of theirs that it answers; empty when none
     */
    public record PlaceFile(int number, String name, long bytes, String sha256, int taken, Look look, String answers) {
    }

    /**
     * The place as its person sees it.
     *
     * @param putIn whether they may put files in now
     * @param asks whether they have to accept the invitation first, and did not
     * @param declined whether they declined it
     * @param offersPutIn what they may do once they accept
     * @param alone whether nothing is asked of them, so that no deadline stands there
     * @param files empty where they may neither see nor take away anything
     */
    public record ExchangePlace(boolean putIn, boolean see, boolean takeAway, boolean asks, boolean declined, boolean offersPutIn, boolean offersSee, boolean offersTakeAway, boolean alone, List<PlaceFile> files) {
    }

    private final Exchanges exchanges;
    private final ExchangeParcels parcels;

    ExchangePage(Exchanges exchanges, ExchangeParcels parcels) {
        this.exchanges = exchanges;
        this.parcels = parcels;
    }

    /** The place behind a link that admits; null where papers go in one direction only. */
    public @Nullable ExchangePlace behind(Link link) {
        Long basket = link.basketId();
        return basket == null ? null : exchanges.ofBasket(basket).map(this::place).orElse(null);
    }

    private ExchangePlace place(Exchange exchange) {
        ExchangeRights rights = exchange.rights();
        boolean asks = exchange.terms().asksFirst() && exchange.answer() != ExchangeAnswer.ACCEPTED;
        return new ExchangePlace(rights.putIn(), rights.see(), rights.takeAway(), asks, asks && exchange.answer() == ExchangeAnswer.DECLINED, exchange.terms().putIn(), exchange.terms().see(),
                exchange.terms().takeAway(), exchange.alone(),
                rights.namesFiles() ? ready(exchange).stream().map(lying -> file(lying, rights)).toList() : List.of());
    }

    private List<ExchangeParcels.Lying> ready(Exchange exchange) {
        return parcels.lying(exchange.id(), exchange.wayId()).stream().filter(lying -> lying.file().state() == ParcelFile.State.READY).toList();
    }

    private static PlaceFile file(ExchangeParcels.Lying lying, ExchangeRights rights) {
        ParcelFile file = lying.file();
        return new PlaceFile(file.number(), file.fileName(), file.sizeBytes(), rights.takeAway() ? HexFormat.of().formatHex(Objects.requireNonNull(file.sha256())) : "", lying.taken(),
                rights.see() ? DrawnFile.look(file.mediaType()) : Look.NONE, file.answers());
    }

    /**
     * The exchange behind a link that admits.
     *
     * @throws Problem with status 404 where papers go in one direction only
     */
    Exchange exchange(Link link) {
        Long basket = link.basketId();
        return Optional.ofNullable(basket).flatMap(exchanges::ofBasket).orElseThrow(() -> Problem.notFound("no-exchange"));
    }

    /** What lies there and can be had, in its order. */
    List<ParcelFile> files(Exchange exchange) {
        return ready(exchange).stream().map(ExchangeParcels.Lying::file).toList();
    }
}
