package oakbasket.core.brand;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import oakbasket.core.fault.FaultyValue;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class BrandColoursTest {

    /** Contrast ratios as published: black on white is 21 by definition (WCAG 2.2), the greys around 4.5 are those that its techniques name (from memory: #767676 passes with 4.54, #777777 fails with 4.48). */
    @ParameterizedTest
    @CsvSource({"#000000, #ffffff, 21.0", "#ffffff, #ffffff, 1.0", "#767676, #ffffff, 4.54", "#777777, #ffffff, 4.48", "#ff0000, #ffffff, 4.0", "#0000ff, #ffffff, 8.59", "00FF00, #000000, 15.3"})
    void contrastIsThatOfTheStandard(String one, String other, double ratio) {
        assertThat(Colour.parse(one).contrast(Colour.parse(other))).isCloseTo(ratio, within(0.01));
        assertThat(Colour.parse(other).contrast(Colour.parse(one))).isCloseTo(ratio, within(0.01));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "green", "#12345", "#1234567", "#12 456", "rgb(1,2,3)", "url(x)", "#12345g"})
    void nothingElseIsAColour(String text) {
        assertThatThrownBy(() -> Colour.parse(text)).isInstanceOf(FaultyValue.class);
    }

    @Test
    void aColourThatCanBeReadStaysAndAnotherBecomesTheNearestThatCan() {
        Colour paper = Colour.parse("#f6f1e6");
        Colour leaf = Colour.parse("#47682f");
        assertThat(BrandColours.nearest(leaf, paper)).isEqualTo(leaf);
        Random random = new Random(14);
        for (int i = 0; i < 2_000; i++) {
            Colour wanted = new Colour(random.nextInt(256), random.nextInt(256), random.nextInt(256));
            Colour background = BrandColours.nearestBackground(new Colour(random.nextInt(256), random.nextInt(256), random.nextInt(256)));
            assertThat(BrandColours.contrastOfText(background)).as("%s", background).isGreaterThanOrEqualTo(BrandColours.LEAST);
            Colour nearest = BrandColours.nearest(wanted, background);
            assertThat(BrandColours.contrast(nearest, background)).as("%s on %s", wanted, background).isGreaterThanOrEqualTo(BrandColours.LEAST);
            if (!nearest.equals(wanted)) {
                assertThat(BrandColours.contrast(nearest.towards(wanted, 0.1), background)).as("no darker than need be: %s on %s", wanted, background).isLessThan(BrandColours.LEAST + 0.6);
            }
        }
    }

    @Test
    void hexIsReadBack() {
        assertThat(Colour.parse(" 0a0B0c ").hex()).isEqualTo("#0a0b0c");
        assertThatThrownBy(() -> new Colour(0, 256, 0)).isInstanceOf(IllegalArgumentException.class);
        assertThatThrownBy(() -> new Colour(-1, 0, 0)).isInstanceOf(IllegalArgumentException.class);
    }
}
