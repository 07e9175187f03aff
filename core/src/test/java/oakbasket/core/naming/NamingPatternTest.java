package oakbasket.core.naming;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.time.ZoneId;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class NamingPatternTest {

    private static final NameFacts FACTS = facts("Ada Brook", "scan0001.PDF");

    private static NameFacts facts(String person, String original) {
        return new NameFacts("Consent packs", "", "No group", person, "Brook Farm", "ada@example.org", "L-07", "", "Signed consent", "PDF", original,
                Instant.parse("2026-05-31T23:30:00Z"), Instant.parse("2026-06-10T16:00:00Z"), ZoneId.of("Europe/London"), "ABCD-EFGH-JKMN", 2);
    }

    @ParameterizedTest(name = "{0} makes {1}")
    @CsvSource({
        "{person} - {item} - {received:yyyy-MM-dd}{ext}, Ada Brook - Signed consent - 2026-06-01.pdf",
        "{person} - {item},                              Ada Brook - Signed consent.pdf",
        "{original}{ext},                                scan0001.pdf",
        "{reference}_{number}_{receipt},                 L-07_2_ABCD-EFGH-JKMN.pdf",
        "{received:yyyy-MM-dd HHmm} {email},             2026-06-01 0030 ada@example.org.pdf",
        "{deadline} {organisation},                      2026-06-10 Brook Farm.pdf"})
    void namesFilesInTheZoneOfTheRound(String pattern, String name) {
        assertThat(NamingPattern.fileName(pattern).render(FACTS)).isEqualTo(name);
    }

    @ParameterizedTest(name = "{0} makes {1}")
    @CsvSource({"{round}/{group}/{person}, Consent packs/No group/Ada Brook", "Papers 2026/{organisation}, Papers 2026/Brook Farm"})
    void namesFolders(String pattern, String path) {
        assertThat(NamingPattern.folders(pattern).render(FACTS)).isEqualTo(path);
    }

    @ParameterizedTest(name = "{0} makes {1}")
    @CsvSource(delimiter = '|', value = {
        "{round}/<{group}>/{person} | Consent packs/Ada Brook", "{round}/x<{group}>/{person} | Consent packs/x/Ada Brook", "{last}, {first} | Brook, Ada", "{round}< for {organisation}> | Consent packs for Brook Farm",
        "{person}< - {group} - {organisation}> | Ada Brook", "{number:000} {kind}< {sender}> | 002 PDF", "{person}<_{reference}>< {group}> | Ada Brook_L-07", "[{organisation}] (x) | [Brook Farm] (x)"})
    void aBracketedPartGoesWithItsEmptyField(String pattern, String path) {
        assertThat(NamingPattern.folders(pattern).render(FACTS)).isEqualTo(path);
    }

    @ParameterizedTest(name = "{0}: {1} at {2}")
    @CsvSource(delimiter = '|', value = {"{round}/<{group} | pattern-part-unclosed | 8", "a>{group} | pattern-part-unopened | 1", "a<b<{group}>> | pattern-part-in-part | 3", "a <b>{group} | pattern-part-plain | 2",
        "<{group}>/<{sender}> | pattern-all-optional | 0", "{number:00x} | pattern-number-format | 0", "{number:} | pattern-number-format | 0", "{number:0000000000} | pattern-number-format | 0"})
    void aBracketedPartIsChecked(String pattern, String code, int position) {
        assertThatThrownBy(() -> NamingPattern.folders(pattern)).isInstanceOfSatisfying(PatternProblem.class, problem -> assertThat(problem.position()).isEqualTo(position)).hasMessage(code);
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '|', value = {"Ada Brook | Ada | Brook", "Ada Maria  Brook | Ada Maria | Brook", "Brook, Ada M. | Ada M. | Brook", "北川 | '' | 北川", "Ünal | '' | Ünal", "' Ada ' | '' | Ada"})
    void aNameIsPartedForSorting(String whole, String first, String last) {
        assertThat(PersonName.of(whole)).isEqualTo(new PersonName(first, last));
    }

    @ParameterizedTest(name = "a person called {0}")
    @CsvSource({"../../etc, 'Packs/_.._etc'", "a/b, 'Packs/a_b'", "'..', 'Packs/unnamed'", "CON, 'Packs/_CON'"})
    void aValueNeverLeavesItsSegment(String person, String path) {
        assertThat(NamingPattern.folders("Packs/{person}").render(facts(person, "x.pdf"))).isEqualTo(path);
    }

    @ParameterizedTest(name = "folders {0}: {1}")
    @CsvSource(delimiter = '|', value = {
        "{rond}/{person}   | no-such-field", "../{person} | pattern-leads-out", "{person}/.. | pattern-leads-out", "a/./b | pattern-leads-out",
        "/srv/{person}     | pattern-root", "C:/x | pattern-root", "a//b | pattern-empty-folder", "a/ | pattern-empty-folder",
        "a\\b | pattern-character", "{person | pattern-unclosed", "person} | pattern-unopened", "{person:yyyy} | pattern-format-not-taken", "{received:yyyy-QQQQQQ} | pattern-date-format",
        "{received:} | pattern-date-format", "a/b/c/d/e/f/g/h/i | pattern-deep", "'' | pattern-missing"})
    void refusesFoldersThatCannotBeUsed(String pattern, String message) {
        assertThatThrownBy(() -> NamingPattern.folders(pattern.equals("''") ? "" : pattern)).isInstanceOf(PatternProblem.class).hasMessage(message);
    }

    @ParameterizedTest(name = "name {0}: {1}")
    @CsvSource(delimiter = '|', value = {"{person}/{item} | pattern-slash-in-name", "document | pattern-one-name", "doc{ext} | pattern-one-name", "{nobody} | no-such-field"})
    void refusesNamesThatCannotBeUsed(String pattern, String message) {
        assertThatThrownBy(() -> NamingPattern.fileName(pattern)).isInstanceOf(PatternProblem.class).hasMessage(message);
    }

    @ParameterizedTest(name = "{0} at {1}")
    @CsvSource(delimiter = '|', value = {"ab/cd/{x} | 6", "ab//cd | 3", "a/b/c}d | 5", "{round}/x*y | 9", "{person | 0", "ab/.. | 3", "}x | 0", "ab<c | 2", "a>b | 1", "ab:c | 2"})
    void theFaultIsWhereItStands(String pattern, int position) {
        assertThatThrownBy(() -> NamingPattern.folders(pattern)).isInstanceOfSatisfying(PatternProblem.class, problem -> assertThat(problem.position()).isEqualTo(position));
    }

    @ParameterizedTest(name = "[{0}]: {1}")
    @CsvSource(delimiter = '|', value = {"'' | pattern-missing", "/{item} | pattern-slash-in-name", "{item}} | pattern-unopened", "{:yyyy} | no-such-field"})
    void aNameIsReadFromItsFirstCharacter(String pattern, String code) {
        assertThatThrownBy(() -> NamingPattern.fileName(pattern)).isInstanceOf(PatternProblem.class).hasMessage(code);
        if (code.equals("no-such-field")) {
            assertThatThrownBy(() -> NamingPattern.fileName(pattern)).isInstanceOfSatisfying(PatternProblem.class, problem -> assertThat(problem.reason().arguments()).startsWith("{}"));
        }
    }

    @ParameterizedTest
    @CsvSource({"300, true", "301, false"})
    void aPatternHasItsLength(int length, boolean fits) {
        String pattern = "{item}" + "x".repeat(length - 6);
        if (fits) {
            assertThat(NamingPattern.fileName(pattern)).hasToString(pattern);
        } else {
            assertThatThrownBy(() -> NamingPattern.fileName(pattern)).hasMessage("pattern-long");
        }
    }

    @Test
    void aPatternKnowsItsFieldsAndItsDepth() {
        assertThat(NamingPattern.folders("a/b/c/d/e/f/g/h").render(FACTS)).isEqualTo("a/b/c/d/e/f/g/h");
        NamingPattern numbered = NamingPattern.folders("{round}/{number}");
        assertThat(numbered.uses(NameField.NUMBER)).isTrue();
        assertThat(numbered.uses(NameField.ITEM)).isFalse();
        assertThat(NamingPattern.folders("plain").uses(NameField.NUMBER)).isFalse();
    }

    @Test
    void anUnknownFieldIsToldWithThoseThatThereAre() {
        assertThatThrownBy(() -> NamingPattern.folders("{rond}")).isInstanceOfSatisfying(PatternProblem.class, problem -> assertThat(problem.reason().arguments()).containsExactly("{rond}",
                "{round} {group} {person} {first} {last} {organisation} {email} {reference} {sender} {item} {kind} {original} {ext} {received} {deadline} {receipt} {number}"));
    }
}
