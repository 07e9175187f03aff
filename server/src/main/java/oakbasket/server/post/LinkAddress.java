package oakbasket.server.post;

import java.net.URI;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import oakbasket.server.Settings;
import oakbasket.server.basket.Basket;
import oakbasket.server.basket.Baskets;
import oakbasket.server.link.Link;
import oakbasket.server.link.Links;
import oakbasket.server.parcel.ParcelLink;
import oakbasket.server.parcel.ParcelLinks;
import oakbasket.server.parcel.Parcels;
import oakbasket.server.words.Words;
import org.springframework.core.env.Environment;
import org.springframework.stereotype.Component;

/** Puts links into letters as the numbers of baskets, and makes links of them where somebody may read them. */
@Component
public class LinkAddress {

    /** Private-use characters, which no other part of a letter can hold. */
    private static final Pattern MARK = Pattern.compile("\uE000(p?)(\\d{1,18})\uE001");

    private final Links links;
    private final Baskets baskets;
    private final Parcels parcels;
    private final ParcelLinks parcelLinks;
    private final Settings settings;
    private final Environment environment;
    private final Words words;

    LinkAddress(Links links, Baskets baskets, Parcels parcels, ParcelLinks parcelLinks, Settings settings, Environment environment, Words words) {
        this.links = links;
        this.baskets = baskets;
        this.parcels = parcels;
        this.parcelLinks = parcelLinks;
        this.settings = settings;
        this.environment = environment;
        this.words = words;
    }

    /** What stands for the personal link of a basket. */
    static String mark(long basketId) {
        return "\uE000" + basketId + "\uE001";
    }

    /** What stands for somebody's link to a parcel. */
    static String parcelMark(long linkId) {
        return "\uE000p" + linkId + "\uE001";
    }

    /** The text without the characters of marks, for whatever was typed by people. */
    public static String plain(String text) {
        return text.replaceAll("[\uE000\uE001]", "");
    }

    /** The text, in a language, with its links. */
    String open(String text, Locale language) {
        return MARK.matcher(text).replaceAll(found -> Matcher.quoteReplacement(
                (found.group(1).isEmpty() ? link(Long.parseLong(found.group(2))).map(links::path) : parcelPath(Long.parseLong(found.group(2)))).map(path -> base() + path)
                        .orElseGet(() -> words.in(language).of("letter.no-link"))));
    }

    private Optional<String> parcelPath(long linkId) {
        ParcelLink link = parcelLinks.byId(linkId);
        return link.withdrawnAt() != null ? Optional.empty() : Optional.of(parcelLinks.path(link, parcels.byId(link.parcelId()).name()));
    }

    /** The personal link of a basket; of somebody who came through the open link, that one. */
    private Optional<Link> link(long basketId) {
        Basket basket = baskets.byId(basketId);
        return links.ofBasket(basketId).or(() -> basket.walkIn() ? links.openOf(basket.roundId()) : Optional.empty());
    }

    /** Where links lead: the public address, or this machine where none is set. */
    public String base() {
        URI address = settings.publicAddress();
        return address != null ? address.toString().replaceAll("/+$", "") : "http://localhost:" + environment.getProperty("local.server.port", "8080");
    }

    /** Whether people elsewhere can reach what letters link to. */
    boolean reachable() {
        return settings.publicAddress() != null;
    }
}
