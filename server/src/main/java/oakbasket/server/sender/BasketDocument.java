package oakbasket.server.sender;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import oakbasket.server.link.Links;
import oakbasket.server.problem.Problem;
import oakbasket.server.web.ProblemWriter;
import oakbasket.server.words.SenderLanguages;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.ClassPathResource;
import org.springframework.stereotype.Component;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * The HTML of the page of senders, with the data of the page and the texts of its language in it: on a poor line each request costs more than its bytes.
 * Whoever only fetches it, such as a mail program that looks at links, has not seen the page; the page itself says that.
 */
@Component
public class BasketDocument {

    /** What stands in the page where the server writes. */
    private static final String LANGUAGE = "__LANGUAGE__";
    private static final String DIRECTION = "__DIRECTION__";
    private static final String TEXTS = "__TEXTS__";
    private static final String BEGIN = "__BEGIN__";

    /** What the page is begun with: the page, or why there is none. */
    record Begin(BasketPage.@Nullable Page page, @Nullable JsonNode problem) {
    }

    private final Links links;
    private final BasketPage pages;
    private final ProblemWriter problems;
    private final Words words;
    private final JsonMapper json;
    private final String html = read("basket.html");
    private final Map<String, String> texts = new HashMap<>();

    BasketDocument(Links links, BasketPage pages, ProblemWriter problems, Words words, JsonMapper json) {
        this.links = links;
        this.pages = pages;
        this.problems = problems;
        this.words = words;
        this.json = json;
        SenderLanguages.ALL.forEach(language -> texts.put(language.getLanguage(), read("texts/" + language.getLanguage() + ".json")));
    }

    /** The document behind a token, which may be anything. */
    public byte[] behind(String token, String caller) {
        Begin begin = begin(token, caller);
        BasketPage.Page page = begin.page();
        Locale language = page == null ? words.language() : SenderLanguages.ofTag(page.language()).orElse(words.language());
        return with(language, inScript(json.writeValueAsString(begin)));
    }

    /** The document without data, which it then asks for. */
    public byte[] empty() {
        return with(words.language(), "");
    }

    private Begin begin(String token, String caller) {
        try {
            Links.Admitted in = links.admit(token, null, caller);
            return new Begin(pages.behind(in.link(), in.round()), null);
        } catch (Problem refused) {
            return new Begin(null, problems.tree(refused));
        }
    }

    private byte[] with(Locale language, String data) {
        return html.replace(LANGUAGE, language.toLanguageTag()).replace(DIRECTION, SenderLanguages.rightToLeft(language) ? "rtl" : "ltr")
                .replace(TEXTS, inScript(String.valueOf(texts.get(language.getLanguage())))).replace(BEGIN, data).getBytes(StandardCharsets.UTF_8);
    }

    /** JSON that can stand inside a script element, which ends at the first end tag whatever it is part of. */
    private static String inScript(String json) {
        return json.replace("<", "\\u003c");
    }

    private static String read(String name) {
        try {
            return new ClassPathResource("static/" + name).getContentAsString(StandardCharsets.UTF_8);
        } catch (IOException missing) {
            throw new UncheckedIOException(missing);
        }
    }
}
