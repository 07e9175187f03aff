package oakbasket.core.naming;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/**
 * Sources: POSIX NAME_MAX (255 bytes); Microsoft, "Naming Files, Paths, and Namespaces" (reserved characters and device names, trailing dot and
 * space); Unicode UAX #15 (NFC) and UAX #9 (bidirectional controls).
 */
class SafeNameTest {

    @ParameterizedTest(name = "[{0}] becomes [{1}]")
    @CsvSource(ignoreLeadingAndTrailingWhitespace = false, value = {
        "report.pdf,report.pdf", "CON.txt,_CON.txt", "con,_con", "aux.tar.gz,_aux.tar.gz", "COM1.pdf,_COM1.pdf", "COM¹,_COM¹", "lpt³.log,_lpt³.log",
        "CON .txt,_CON .txt", "CONsent.pdf,CONsent.pdf", "COM10.pdf,COM10.pdf",
        "report.,report", "report. ,report", " .hidden,hidden", "..,unnamed", ".,unnamed", "'',unnamed", "   ,unnamed",
        "a/b\\c,a_b_c", "../../etc/passwd,_.._etc_passwd", "C:\\x.pdf,C__x.pdf", "what?*.pdf,what__.pdf", "<a|b>.txt,_a_b_.txt",
        "photo\u202Egpj.exe,photogpj.exe", "a\u2066b\u2069.pdf,ab.pdf", "zero\u200Bwidth.pdf,zerowidth.pdf", "tab\there.pdf,tab here.pdf",
        "'line\nbreak.pdf',line break.pdf", "bell\u0007.pdf,bell.pdf", "e\u0301te\u0301.pdf,\u00E9t\u00E9.pdf", "two  spaces.pdf,two spaces.pdf", "no\u00A0break.pdf,no break.pdf"})
    void makesEveryNameSafe(String raw, String safe) {
        assertThat(SafeName.of(raw)).isEqualTo(safe);
    }

    @Test
    void keepsTheExtensionOfANameOf300Bytes() {
        String safe = SafeName.of("é".repeat(148) + ".pdf");
        assertThat(bytes(safe)).isBetween(252, 255);
        assertThat(safe).endsWith("é.pdf");
        String numbered = ClashNumber.on(safe, 12);
        assertThat(numbered).endsWith("é (12).pdf");
        assertThat(bytes(numbered)).isLessThanOrEqualTo(255);
        assertThat(bytes(SafeName.of("😀".repeat(80)))).isEqualTo(252);
    }

    @Test
    void isSafeAndStableForAnyText() {
        Random random = new Random(20260601);
        for (int i = 0; i < 20_000; i++) {
            StringBuilder raw = new StringBuilder();
            random.ints(random.nextInt(12), 0, 8).forEach(kind -> raw.appendCodePoint(switch (kind) {
                case 0 -> "./\\ :CON".charAt(random.nextInt(8));
                case 1 -> random.nextInt(32);
                case 2 -> 0x2000 + random.nextInt(0x70);
                case 3 -> random.nextInt(0x10FFFF);
                default -> 'a' + random.nextInt(26);
            }));
            String safe = SafeName.of(raw.toString());
            assertThat(safe).as("from %s", raw).isNotEmpty().doesNotContain("/", "\\", "\u0000").doesNotStartWith(".").doesNotStartWith(" ")
                    .doesNotEndWith(".").doesNotEndWith(" ");
            assertThat(bytes(safe)).isLessThanOrEqualTo(255);
            assertThat(SafeName.of(safe)).isEqualTo(safe);
        }
    }

    @ParameterizedTest(name = "attempt {1} at {0} is {2}")
    @CsvSource({"a.pdf,1,a.pdf", "a.pdf,2,a (2).pdf", "a,3,a (3)", "a.tar.gz,2,a.tar (2).gz"})
    void clashesAreNumbered(String name, int attempt, String numbered) {
        assertThat(ClashNumber.on(name, attempt)).isEqualTo(numbered);
    }

    @Test
    void namesThatOneDiskWouldMixUpHaveOneKey() {
        assertThat(ClashNumber.key("A/\u00C9t\u00E9.PDF")).isEqualTo(ClashNumber.key("a/e\u0301te\u0301.pdf"));
        assertThat(ClashNumber.key("a.pdf")).isNotEqualTo(ClashNumber.key("b.pdf"));
    }

    private static int bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8).length;
    }

    /** At the length limit a short extension is kept and a long one is cut like the rest of the name; one of 20 bytes is the longest kept. */
    @ParameterizedTest(name = "a stem of {0} bytes, an ending of {1}: kept {2}")
    @CsvSource({"235, 20, true", "236, 20, true", "300, 20, true", "300, 21, false", "251, 4, true", "252, 4, true"})
    void theExtensionIsKeptAtTheLengthLimit(int stem, int ending, boolean kept) {
        String extension = "." + "e".repeat(ending - 1);
        String safe = SafeName.of("s".repeat(stem) + extension);
        assertThat(bytes(safe)).isEqualTo(255);
        assertThat(safe.endsWith("s" + extension)).isEqualTo(kept);
    }

    @Test
    void aNameThatIsAllExtensionIsCutLikeAnyOther() {
        assertThat(SafeName.shortened("." + "x".repeat(9), 5)).isEqualTo("xxxx");
    }

    @ParameterizedTest(name = "{0} is [{1}] and [{2}]")
    @CsvSource({"a.pdf, a, .pdf", ".pdf, pdf, ''", "a.eeeeeeeeeeeeeeeeeee, a, .eeeeeeeeeeeeeeeeeee", "a.eeeeeeeeeeeeeeeeeeee, a.eeeeeeeeeeeeeeeeeeee, ''", "a.b c, a.b c, ''"})
    void aNameIsItsStemAndItsExtension(String name, String stem, String extension) {
        assertThat(SafeName.stem(name)).isEqualTo(stem);
        assertThat(SafeName.extension(name)).isEqualTo(extension);
    }
}
