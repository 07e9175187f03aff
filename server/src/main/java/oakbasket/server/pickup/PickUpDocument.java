package oakbasket.server.pickup;

import java.util.Locale;
import oakbasket.server.brand.Brand;
import oakbasket.server.parcel.ParcelLinks;
import oakbasket.server.problem.Problem;
import oakbasket.server.web.LightDocument;
import oakbasket.server.web.ProblemWriter;
import oakbasket.server.words.SenderLanguages;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The HTML of the pick-up page, with its data in it. Whoever only fetches it, such as a mail program that looks at links, has taken nothing away. */
@Component
class PickUpDocument {

    /** What the page is begun with: the page, or why there is none. */
    record PickUpBegin(PickUpPage.@Nullable PickUp page, @Nullable JsonNode problem) {
    }

    private final ParcelLinks links;
    private final PickUpPage pages;
    private final ProblemWriter problems;
    private final Words words;
    private final JsonMapper json;
    private final Brand brand;
    private final LightDocument document = new LightDocument("pickup.html", "pickup-texts");

    PickUpDocument(ParcelLinks links, PickUpPage pages, ProblemWriter problems, Words words, JsonMapper json, Brand brand) {
        this.brand = brand;
        this.links = links;
        this.pages = pages;
        this.problems = problems;
        this.words = words;
        this.json = json;
    }

    /** The document behind a token, which may be anything. */
    byte[] behind(String token, String caller) {
        PickUpBegin begin = begin(token, caller);
        PickUpPage.PickUp page = begin.page();
        Locale language = page == null ? words.language() : SenderLanguages.ofTag(page.language()).orElse(words.language());
        return document.with(language, json.writeValueAsString(begin), json.writeValueAsString(brand.now()));
    }

    private PickUpBegin begin(String token, String caller) {
        try {
            ParcelLinks.Admitted in = links.admit(token, null, caller);
            return new PickUpBegin(pages.behind(in.link(), in.parcel()), null);
        } catch (Problem refused) {
            return new PickUpBegin(null, problems.tree(refused));
        }
    }
}
