package oakbasket.server.web;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import oakbasket.server.words.SenderLanguages;
import org.springframework.core.io.ClassPathResource;

/** The HTML of a page for strangers, with the texts of its language and its data in it: on a poor line each request costs more than its bytes. */
public final class LightDocument {

    /** What stands in the page where the server writes. */
    private static final String LANGUAGE = "__LANGUAGE__";
    private static final String DIRECTION = "__DIRECTION__";
    private static final String TEXTS = "__TEXTS__";
    private static final String BEGIN = "__BEGIN__";
    private static final String FACE = "__FACE__";

    private final String html;
    private final Map<String, String> texts = new HashMap<>();

    /**
     * Reads a page that was built.
     *
     * @param name of its file
     * @param folder of its texts, one file for each language
     */
    public LightDocument(String name, String folder) {
        html = read(name);
        SenderLanguages.ALL.forEach(language -> texts.put(language.getLanguage(), read(folder + "/" + language.getLanguage() + ".json")));
    }

    /** The page in a language. @param data as JSON; empty for none @param face what people see of the office, as JSON */
    public byte[] with(Locale language, String data, String face) {
        return html.replace(LANGUAGE, language.toLanguageTag()).replace(DIRECTION, SenderLanguages.rightToLeft(language) ? "rtl" : "ltr")
                .replace(TEXTS, inScript(String.valueOf(texts.get(language.getLanguage())))).replace(FACE, inScript(face)).replace(BEGIN, inScript(data)).getBytes(StandardCharsets.UTF_8);
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
