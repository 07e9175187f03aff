package oakbasket.server.words;

import static org.assertj.core.api.Assertions.assertThat;

import com.ibm.icu.text.PluralRules;
import com.ibm.icu.util.ULocale;
import java.io.IOException;
import java.io.Reader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Properties;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The languages of senders have the same words: those of the page, and those the server refuses with. */
class SenderWordsTest {

    private static final JsonMapper JSON = new JsonMapper();
    private static final Pattern PLACE = Pattern.compile("\\{(\\d)\\}");
    private static final Path MESSAGES = Path.of("src/main/resources/messages");
    /** What only a program meets that speaks the upload protocol wrongly. */
    private static final Set<String> OF_THE_PROTOCOL = Set.of("tus-version", "upload-type", "header-twice", "upload-length", "upload-offset", "upload-metadata", "upload-surplus", "offset", "unreadable");

    static Stream<String> others() {
        return SenderLanguages.ALL.stream().map(Locale::getLanguage).filter(language -> !language.equals("en"));
    }

    /** The texts of the pages for strangers; those of the page of senders come in two parts. */
    private static final List<String> FOLDERS = List.of("texts", "later-texts", "pickup-texts");

    static Stream<Arguments> foldersInOthers() {
        return others().flatMap(language -> FOLDERS.stream().map(folder -> Arguments.of(folder, language)));
    }

    /** The pages for strangers: the folder of their sources, and those of their texts. */
    static Stream<Arguments> pages() {
        return Stream.of(Arguments.of("basket", List.of("texts", "later-texts")), Arguments.of("pickup", List.of("pickup-texts")));
    }

    @ParameterizedTest
    @MethodSource("foldersInOthers")
    void everyPageHasTheSameTextsWithTheSamePlacesInEveryLanguage(String folder, String language) throws IOException {
        JsonNode english = texts(folder, "en");
        JsonNode spoken = texts(folder, language);
        assertThat(spoken.propertyNames()).containsExactlyInAnyOrderElementsOf(english.propertyNames());
        for (String key : english.propertyNames()) {
            JsonNode said = spoken.path(key);
            assertThat(said.isObject()).as(key).isEqualTo(english.path(key).isObject());
            for (JsonNode form : said.isObject() ? said.values() : java.util.List.of(said)) {
                assertThat(places(form.asString())).as("%s: %s", key, form).isEqualTo(places(english.path(key).isObject() ? english.path(key).path("other").asString() : english.path(key).asString()));
            }
        }
    }

    /** Source: the plural rules of CLDR, by ICU: Polish has one, few, many and other; Arabic all six. */
    @ParameterizedTest
    @CsvSource({"en", "es", "fr", "de", "pl", "ar"})
    void everyCountHasExactlyThePluralFormsOfItsLanguage(String language) throws IOException {
        Set<String> forms = new TreeSet<>(PluralRules.forLocale(new ULocale(language)).getKeywords());
        // Newer data than this library's has a form for millions in Spanish and French, which the browsers know.
        if (language.equals("es") || language.equals("fr")) {
            forms.add("many");
        }
        for (String folder : FOLDERS) {
            JsonNode spoken = texts(folder, language);
            spoken.propertyNames().stream().filter(key -> spoken.path(key).isObject())
                .forEach(key -> assertThat(new TreeSet<>(spoken.path(key).propertyNames())).as(key).isEqualTo(forms));
        }
    }

    /** The second of two would silently speak for the first. */
    @Test
    void noKeyStandsTwiceInAFile() throws IOException {
        try (Stream<Path> all = Files.list(MESSAGES)) {
            for (Path file : all.toList()) {
                List<String> keys = Files.readAllLines(file).stream().filter(line -> line.matches("[A-Za-z0-9._-]+=.*")).map(line -> line.substring(0, line.indexOf('='))).toList();
                assertThat(keys).as("%s", file).isNotEmpty().doesNotHaveDuplicates();
            }
        }
    }

    @ParameterizedTest
    @MethodSource("pages")
    void noTextOfAPageStandsThereForNothing(String page, List<String> folders) throws IOException {
        String sources;
        try (Stream<Path> files = Stream.concat(Files.walk(Path.of("../web/src", page)), Files.walk(Path.of("../web/src/light")))) {
            sources = files.filter(Files::isRegularFile).map(SenderWordsTest::read).collect(Collectors.joining());
        }
        Set<String> used = new TreeSet<>();
        Matcher found = Pattern.compile("\\btext\\.([A-Za-z_]+)").matcher(sources);
        while (found.find()) {
            used.add(found.group(1));
        }
        List<String> keys = new ArrayList<>();
        for (String folder : folders) {
            keys.addAll(texts(folder, "en").propertyNames());
        }
        assertThat(keys).containsExactlyInAnyOrderElementsOf(used);
    }

    @ParameterizedTest
    @MethodSource("others")
    void theServerRefusesSendersInTheirLanguage(String language) throws IOException {
        for (String file : new String[] {"problems", "faults", "words"}) {
            Properties english = properties(file);
            Properties spoken = properties(file + "_" + language);
            assertThat(spoken.stringPropertyNames()).as(file).isEqualTo(properties(file + "_de").stringPropertyNames());
            for (String key : spoken.stringPropertyNames()) {
                assertThat(english.getProperty(key)).as(key).isNotNull();
                assertThat(places(spoken.getProperty(key))).as(key).isEqualTo(places(english.getProperty(key)));
            }
        }
    }

    /** Whatever can be refused where senders come in has words in their language. */
    @Test
    void nothingThatIsRefusedAtTheSendersDoorIsLeftOut() throws IOException {
        Set<String> codes = new TreeSet<>();
        for (String place : new String[] {"upload", "sender", "sendermail", "exchangepage"}) {
            try (Stream<Path> files = Files.walk(Path.of("src/main/java/oakbasket/server", place))) {
                files.filter(file -> Files.isRegularFile(file) && !file.endsWith("RehearsalController.java") && !file.endsWith("Release.java")).forEach(file -> codes.addAll(codesIn(read(file))));
            }
        }
        codes.addAll(codesIn(read(Path.of("src/main/java/oakbasket/server/link/Links.java"))));
        codes.removeAll(OF_THE_PROTOCOL);
        Set<String> said = properties("problems_ar").stringPropertyNames();
        assertThat(codes).hasSizeGreaterThan(20).allMatch(code -> said.contains(code + ".title") && said.contains(code + ".detail"));
    }

    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(delimiter = '|', value = {
        "pl | pl", "fr-CA,fr;q=0.9,en;q=0.8 | fr", "sv,de;q=0.7,en;q=0.3 | de", "ar-EG | ar", "en-GB,pl;q=0.9 | en", "* | en", "'' | en", "x;q=9,,;; | en", "de;q=0.1,es;q=0.2 | es"})
    void theBrowsersLanguageIsTheFirstWeSpeak(String header, String language) {
        assertThat(SenderLanguages.preferred(header).getLanguage()).isEqualTo(language);
    }

    private static Set<String> codesIn(String source) {
        Set<String> codes = new TreeSet<>();
        Matcher found = Pattern.compile("Problem\\.(?!field\\()\\w+\\((?:Problem\\.Kind\\.\\w+,\\s*)?\"([a-z]+(?:-[a-z]+)*)\"").matcher(source);
        while (found.find()) {
            codes.add(found.group(1));
        }
        return codes;
    }

    private static Set<String> places(String message) {
        return PLACE.matcher(message).results().map(place -> place.group(1)).collect(Collectors.toCollection(TreeSet::new));
    }

    private static JsonNode texts(String folder, String language) throws IOException {
        return JSON.readTree(Files.readString(Path.of("../web/dist", folder, language + ".json")));
    }

    private static Properties properties(String name) throws IOException {
        Properties properties = new Properties();
        try (Reader in = Files.newBufferedReader(MESSAGES.resolve(name + ".properties"))) {
            properties.load(in);
        }
        return properties;
    }

    private static String read(Path file) {
        try {
            return Files.readString(file);
        } catch (IOException unreadable) {
            throw new java.io.UncheckedIOException(unreadable);
        }
    }
}
