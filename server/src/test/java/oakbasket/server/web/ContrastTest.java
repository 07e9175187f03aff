package oakbasket.server.web;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The colours of the application can be read. Source: WCAG 2.2, the definitions of contrast ratio and of relative luminance. */
class ContrastTest {

    /** What the standard's own definition gives for well-known pairs (the figures from memory). */
    @ParameterizedTest
    @CsvSource({"#000000, #ffffff, 21.0", "#767676, #ffffff, 4.54", "#777777, #ffffff, 4.48"})
    void theFormulaIsThatOfTheStandard(String one, String other, double ratio) {
        assertThat(ratio(one, other)).isCloseTo(ratio, within(0.005));
    }

    @ParameterizedTest(name = "{0} on {1}")
    @CsvSource({"bark, paper", "bark, card", "bark, tint", "bark, leaf-tint", "slate, paper", "slate, card", "slate, tint", "oak, paper", "oak, card", "leaf, paper", "leaf, card", "leaf-deep, card",
        "leaf-deep, leaf-tint", "rowan, paper", "rowan, card", "rowan, rowan-tint", "acorn-text, paper", "acorn-text, card", "card, leaf", "card, oak", "card, rowan"})
    void textHasEnoughContrast(String text, String ground) throws Exception {
        Map<String, String> tokens = tokens();
        assertThat(ratio(tokens.get(text), tokens.get(ground))).isGreaterThanOrEqualTo(4.5);
    }

    @Test
    void edgesOfFieldsCanBeSeen() throws Exception {
        Map<String, String> tokens = tokens();
        assertThat(ratio(tokens.get("line-strong"), tokens.get("card"))).as("WCAG 2.2, 1.4.11").isGreaterThanOrEqualTo(3);
        assertThat(ratio(tokens.get("line-strong"), tokens.get("paper"))).isGreaterThanOrEqualTo(3);
    }

    private static Map<String, String> tokens() throws Exception {
        Map<String, String> tokens = new HashMap<>();
        Matcher matcher = Pattern.compile("--([a-z-]+): (#[0-9a-f]{6});").matcher(Files.readString(Path.of("../web/src/shared/tokens.css")));
        while (matcher.find()) {
            tokens.put(matcher.group(1), matcher.group(2));
        }
        return tokens;
    }

    private static double ratio(String one, String other) {
        double lighter = Math.max(luminance(one), luminance(other));
        double darker = Math.min(luminance(one), luminance(other));
        return (lighter + 0.05) / (darker + 0.05);
    }

    private static double luminance(String colour) {
        return 0.2126 * channel(colour, 1) + 0.7152 * channel(colour, 3) + 0.0722 * channel(colour, 5);
    }

    private static double channel(String colour, int at) {
        double part = Integer.parseInt(colour.substring(at, at + 2), 16) / 255.0;
        return part <= 0.04045 ? part / 12.92 : Math.pow((part + 0.055) / 1.055, 2.4);
    }
}
