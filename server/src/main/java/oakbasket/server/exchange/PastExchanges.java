package oakbasket.server.exchange;

import java.time.Clock;
import java.util.List;
import java.util.Map;
import oakbasket.core.exchange.ExchangeTerms;
import oakbasket.core.identity.Person;
import oakbasket.core.link.LinkWindow;
import oakbasket.server.Settings;
import oakbasket.server.parcel.PastParcels;
import oakbasket.server.review.ReceivedFile;
import org.springframework.stereotype.Component;

/** Records exchanges in which something was done already; only the demo does. */
@Component
public class PastExchanges {

    private static final int DAYS = 30;

    private final Exchanges exchanges;
    private final ExchangeTable table;
    private final PastParcels parcels;
    private final Settings settings;
    private final Clock clock;

    PastExchanges(Exchanges exchanges, ExchangeTable table, PastParcels parcels, Settings settings, Clock clock) {
        this.exchanges = exchanges;
        this.table = table;
        this.parcels = parcels;
        this.settings = settings;
        this.clock = clock;
    }

    /** Makes a place. */
    public Exchange make(long account, String title, String message, Person person, String item, ExchangeTerms terms) {
        LinkWindow window = LinkWindow.ofDays(clock.instant(), null, DAYS, settings.zone());
        return table.byId(exchanges.make(new Exchanges.Sheet(title, message, person, List.of(), item, terms, window, "", "", false), account)).orElseThrow();
    }

    /** Has its person accept the invitation. */
    public void accept(Exchange exchange) {
        exchanges.answer(exchange, true);
    }

    /**
     * Puts files there.
     *
     * @param contents by the names of files
     * @param taken how many of them its person took
     */
    public void lay(Exchange exchange, Map<String, byte[]> contents, int taken) {
        parcels.lay(exchange.id(), exchange.wayId(), contents, taken);
    }

    /** Has the last file put there answer one that its person sent. */
    public void answers(Exchange exchange, ReceivedFile sent) {
        List<Long> lying = parcels.idsOf(exchange.id());
        exchanges.answers(exchange.id(), lying.get(lying.size() - 1), sent.id());
    }
}
