package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Properties;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** What the documents and message files say is true. */
class ProjectRulesTest {

    @Test
    void everyProblemHasItsWords() throws IOException {
        Properties words = new Properties();
        try (var reader = Files.newBufferedReader(Path.of("src/main/resources/messages/problems.properties"))) {
            words.load(reader);
        }
        Pattern code = Pattern.compile("(?:unreadable|refused|notFound|conflict|number)\\([^\"\\n]*\"([a-z-]+)\"|Problem\\.of\\([^,]+, \"([a-z-]+)\"");
        TreeSet<String> used = new TreeSet<>();
        try (Stream<Path> sources = Files.walk(Path.of("src/main/java"))) {
            for (Path source : sources.filter(path -> path.toString().endsWith(".java")).toList()) {
                Matcher matcher = code.matcher(Files.readString(source));
                while (matcher.find()) {
                    used.add(matcher.group(1) != null ? matcher.group(1) : matcher.group(2));
                }
            }
        }
        assertThat(used).hasSizeGreaterThan(40).allSatisfy(one -> assertThat(words).containsKeys(one + ".title", one + ".detail"));
    }

    @Test
    void theGlossaryNamesClassesThatExist() throws IOException {
        Matcher name = Pattern.compile("`([a-z]+)\\.([A-Z][A-Za-z]+)`").matcher(Files.readString(Path.of("../docs/glossary.md")));
        List<String> named = name.results().map(found -> found.group(1) + "/" + found.group(2) + ".java").toList();
        assertThat(named).hasSizeGreaterThan(50).allMatch(file -> Files.exists(Path.of("../core/src/main/java/oakbasket/core", file))
                || Files.exists(Path.of("src/main/java/oakbasket/server", file)));
    }

    /** Lengths come from the API description, questions from the desk's own parts, calls and clocks from the places that are made for them. */
    @Test
    void theDeskKeepsNoLimitsQuestionsAndCallsOfItsOwn() throws IOException {
        Pattern own = Pattern.compile("[^:]maxlength=\"\\d{2,}|window\\.(confirm|alert|prompt)|\\bfetch\\(|new EventSource");
        assertThat("<ElInput maxlength=\"200\" />").as("the pattern itself").containsPattern(own);
        try (Stream<Path> parts = Files.walk(Path.of("../web/src/desk"))) {
            assertThat(parts.filter(path -> path.toString().matches(".*\\.(vue|ts)") && !path.endsWith("live.ts")).toList()).hasSizeGreaterThan(80)
                    .allSatisfy(part -> assertThat(Files.readString(part)).as("%s", part).doesNotContainPattern(own));
        }
    }

    /** The desk's controls are those of its component library: the browser's own would follow the browser's language and look. */
    @Test
    void theDeskHasNoChoicesAndDatesOfTheBrowser() throws IOException {
        Pattern own = Pattern.compile("<select\\b|<details\\b|<datalist\\b|<(input|ElInput)\\b[^>]*type=\"(date|time|datetime-local|month|week)\"");
        assertThat("<input v-model=\"day\" type=\"date\" />").as("the pattern itself").containsPattern(own);
        try (Stream<Path> parts = Files.walk(Path.of("../web/src/desk"))) {
            assertThat(parts.filter(path -> path.toString().endsWith(".vue")).toList()).hasSizeGreaterThan(50)
                    .allSatisfy(part -> assertThat(Files.readString(part)).as("%s", part).doesNotContainPattern(own));
        }
    }

    /** The committed description is what the interface's types are made from. Write it anew with: UPDATE_OPENAPI=1 ./test.sh -pl core,server */
    @Test
    void theCommittedApiDescriptionIsTrue() throws IOException {
        JsonNode live = Http.desk().get("/api/openapi.json").json();
        Path committed = Path.of("../docs/openapi.json");
        if (System.getenv("UPDATE_OPENAPI") != null) {
            Files.writeString(committed, live.toPrettyString() + "\n");
        }
        assertThat(Http.JSON.readTree(Files.readString(committed))).isEqualTo(live);
    }
}
