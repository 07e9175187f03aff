package oakbasket.server.words;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Properties;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import oakbasket.core.fault.Fault;
import oakbasket.core.fault.Remark;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class WordsTest {

    private static final Words WORDS = ShippedWords.get();
    /** How codes of faults stand in the code of this program. */
    private static final Pattern CODE = Pattern.compile("(?:Remark\\.of|new FaultyValue|new MailTrouble)\\([^\"\\n;]*\"([a-z]+(?:-[a-z]+)*)\""
            + "|(?:Fault\\.of|Problem\\.field|found\\.error|found\\.odd)\\([^;\\n]*?, \"([a-z]+(?:-[a-z]+)*)\"|new PatternProblem\\([^;\\n]*?,\\s*\"([a-z-]+)\"|problem\\(\"(address-[a-z-]+)\"");

    @ParameterizedTest(name = "{0} of {1}: {2}")
    @CsvSource(delimiter = '|', nullValues = "-", value = {
        "longest             | 200            | Use at most 200 characters",
        "people-most         | 50000          | A round asks at most 50,000 people",
        "address-halves      | ben at example | “ben at example” is not an e-mail address: it needs something before and after the @, such as name@example.org",
        "pattern-leads-out   | ..             | “..” would lead out of the folder of this office. Name the folders themselves, for example: {round}/{person}",
        "pattern-unclosed    | -              | The { has no } after it. For example: {person}",
        "pattern-date-format | QQ             | “QQ” is not a date format. For example: {received:yyyy-MM-dd} or {received:yyyy-MM-dd HHmm}",
        "mail-reply          | 550 {0} 'x'    | 550 {0} 'x'"})
    void whatIsTypedStandsInTheWordsAsItIs(String code, String argument, String said) {
        Object given = argument == null ? "" : argument.matches("\\d+") ? Integer.valueOf(argument) : argument;
        assertThat(WORDS.of(argument == null ? Fault.of("field", code) : Fault.of("field", code, given))).isEqualTo(said);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {"1 | “Map” cannot be taken off: 1 file came for it. Make it optional instead", "2 | “Map” cannot be taken off: 2 files came for it. Make it optional instead"})
    void numbersAreCounted(int files, String said) {
        assertThat(WORDS.of(Remark.of("item-has-files", "Map", files))).isEqualTo(said);
        assertThat(WORDS.of(Remark.NONE)).isEmpty();
    }

    /** Every code that a rule gives has its words, and no words stand there for nothing. */
    @Test
    void everyFaultHasItsWordsAndEveryWordItsFault() {
        Set<String> used = new TreeSet<>();
        Stream.of("../core/src/main/java", "src/main/java").flatMap(WordsTest::sources).forEach(text -> {
            Matcher found = CODE.matcher(text);
            while (found.find()) {
                for (int group = 1; group <= found.groupCount(); group++) {
                    if (found.group(group) != null) {
                        used.add("fault." + found.group(group));
                    }
                }
            }
        });
        Properties all = ShippedWords.all();
        Set<String> there = new TreeSet<>();
        all.stringPropertyNames().stream().filter(key -> key.startsWith("fault.")).forEach(there::add);
        assertThat(used).hasSizeGreaterThan(80);
        assertThat(there).containsAll(used);
        String sources = String.join("", Stream.of("../core/src/main/java", "src/main/java").flatMap(WordsTest::sources).toList());
        assertThat(there).allMatch(key -> sources.contains("\"" + key.substring("fault.".length()) + "\"") || sources.contains("\"" + key + "\""));
    }

    private static Stream<String> sources(String folder) {
        try (Stream<Path> files = Files.walk(Path.of(folder))) {
            return files.filter(file -> file.toString().endsWith(".java")).map(WordsTest::read).toList().stream();
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    private static String read(Path file) {
        try {
            return Files.readString(file);
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }
}
