package oakbasket.core.receipt;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Random;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class ReceiptCodeTest {

    private static final String ALPHABET = "0123456789ABCDEFGHJKMNPQRSTVWXYZ";

    @RepeatedTest(5)
    void everySingleSlipAndEveryExchangeIsNoticed() {
        String code = ReceiptCode.random(new Random()).text();
        for (int i = 0; i < code.length(); i++) {
            for (char symbol : ALPHABET.toCharArray()) {
                if (symbol != code.charAt(i)) {
                    assertRefused(code.substring(0, i) + symbol + code.substring(i + 1));
                }
            }
            for (int j = i + 1; j < code.length(); j++) {
                StringBuilder swapped = new StringBuilder(code);
                swapped.setCharAt(i, code.charAt(j));
                swapped.setCharAt(j, code.charAt(i));
                if (code.charAt(i) != code.charAt(j)) {
                    assertRefused(swapped.toString());
                }
            }
        }
    }

    @Test
    void readsWhatPeopleType() {
        ReceiptCode code = ReceiptCode.random(new Random(7));
        assertThat(code.toString()).matches("[0-9A-Z]{4}-[0-9A-Z]{4}-[0-9A-Z]{4}");
        String sloppy = " " + code.toString().toLowerCase().replace('0', 'o').replace('1', 'l').replace('-', ' ') + "\n";
        assertThat(ReceiptCode.parse(sloppy)).isEqualTo(code);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "0000-0000-000", "0000-0000-0001", "UUUU-UUUU-UUUU", "0000-0000-00000", "é000-0000-0000"})
    void refusesWhatIsNoCode(String text) {
        assertThatThrownBy(() -> ReceiptCode.parse(text)).hasMessageContaining("twelve");
    }

    private static void assertRefused(String text) {
        assertThatThrownBy(() -> new ReceiptCode(text)).as(text).isInstanceOf(IllegalArgumentException.class);
    }
}
