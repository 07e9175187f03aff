package oakbasket.core.naming;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.time.Instant;
import java.time.ZoneId;
import java.util.HashSet;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** Patterns and values put together at random from what could do harm: a pattern is refused with words, or it makes a path below the root. */
class HostilePatternsTest {

    private static final String[] PIECES = {"{person}", "{round}", "{item}", "{original}", "{ext}", "{received:yyyy}", "{received:HH:mm}", "{number}", "{", "}", "{}", "{:}", "{person:x}", "..", ".",
        "/", "//", "\\", " ", "a", "CON", "nul.", "\u202E", "\u0000", "é", "{received:", "<", ">", "<{group}>", "< {sender}", "{last}", "{first}", "{number:000}", "{kind}", "~", "$HOME", "%2e%2e%2f", "C:"};
    private static final String[] VALUES = {"", " ", "..", "../../etc", "/etc/passwd", "a/b", "a\\b", "CON", "nul", "x".repeat(400), "é".repeat(200), "\u202Ecod.exe", "a\u0000b", ".hidden", "trailing. ",
        "{person}", "name\nBcc: x"};
    private static final Path ROOT = Path.of("/root/of/files");
    private final Random random = new Random(99);

    @Test
    void whateverIsTypedAndWhoeverSendsNothingLeavesTheRoot() {
        int used = 0;
        for (int n = 0; n < 60_000; n++) {
            String typed = typed();
            try {
                String path = NamingPattern.folders(typed).render(facts()) + "/" + NamingPattern.fileName("{person} " + typed.replace("/", "")).render(facts());
                used++;
                Path resolved = ROOT.resolve(path).normalize();
                assertThat(resolved.startsWith(ROOT) && !resolved.equals(ROOT)).as("%s made %s", typed, path).isTrue();
                for (String segment : path.split("/", -1)) {
                    assertThat(SafeName.of(segment)).as("%s made %s", typed, path).isEqualTo(segment);
                }
            } catch (PatternProblem refused) {
                assertThat(refused.getMessage()).isNotBlank();
                assertThat(refused.position()).isBetween(0, typed.length() + 10);
            }
        }
        assertThat(used).as("patterns that could be used").isGreaterThan(500);
    }

    @Test
    void numbersNeverMakeTheSameNameTwice() {
        for (String value : VALUES) {
            String name = SafeName.of(value + ".pdf");
            Set<String> made = new HashSet<>();
            for (int attempt = 1; attempt <= 1_000; attempt++) {
                String numbered = ClashNumber.on(name, attempt);
                assertThat(made.add(ClashNumber.key(numbered))).as(numbered).isTrue();
                assertThat(SafeName.of(numbered)).isEqualTo(numbered);
            }
        }
    }

    private String typed() {
        StringBuilder typed = new StringBuilder();
        for (int n = 1 + random.nextInt(5); n > 0; n--) {
            typed.append(PIECES[random.nextInt(PIECES.length)]);
        }
        return typed.toString();
    }

    private NameFacts facts() {
        return new NameFacts(value(), value(), value(), value(), value(), value(), value(), value(), value(), value(), value(), Instant.parse("2026-06-01T10:00:00Z"),
                Instant.parse("2026-06-10T10:00:00Z"), ZoneId.of("Europe/London"), "ABCD", 1);
    }

    private String value() {
        return VALUES[random.nextInt(VALUES.length)];
    }
}
