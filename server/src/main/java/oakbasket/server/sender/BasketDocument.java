package oakbasket.server.sender;

import java.util.Locale;
import oakbasket.server.brand.Brand;
import oakbasket.server.link.Links;
import oakbasket.server.problem.Problem;
import oakbasket.server.web.LightDocument;
import oakbasket.server.web.ProblemWriter;
import oakbasket.server.words.SenderLanguages;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * The HTML of the page of senders, with the data of the page and the texts of its language in it: on a poor line each request costs more than its bytes.
 * Whoever only fetches it, such as a mail program that looks at links, has not seen the page; the page itself says that.
 */
@Component
public class BasketDocument {

    /** What the page is begun with: the page, or why there is none. */
    record Begin(BasketPage.@Nullable Page page, @Nullable JsonNode problem) {
    }

    private final Links links;
    private final BasketPage pages;
    private final ProblemWriter problems;
    private final Words words;
    private final JsonMapper json;
    private final Brand brand;
    private final LightDocument document = new LightDocument("basket.html", "texts");

    BasketDocument(Links links, BasketPage pages, ProblemWriter problems, Words words, JsonMapper json, Brand brand) {
        this.brand = brand;
        this.links = links;
        this.pages = pages;
        this.problems = problems;
        this.words = words;
        this.json = json;
    }

    /** The document behind a token, which may be anything. */
    public byte[] behind(String token, String caller) {
        Begin begin = begin(token, caller);
        BasketPage.Page page = begin.page();
        Locale language = page == null ? words.language() : SenderLanguages.ofTag(page.language()).orElse(words.language());
        return document.with(language, json.writeValueAsString(begin), json.writeValueAsString(brand.now()));
    }

    /** The document without data, which it then asks for. */
    public byte[] empty() {
        return document.with(words.language(), "", json.writeValueAsString(brand.now()));
    }

    private Begin begin(String token, String caller) {
        try {
            Links.Admitted in = links.admit(token, null, caller);
            return new Begin(pages.behind(in.link(), in.round()), null);
        } catch (Problem refused) {
            return new Begin(null, problems.tree(refused));
        }
    }
}
