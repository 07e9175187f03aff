package oakbasket.core.receipt;

import java.util.Locale;
import java.util.random.RandomGenerator;

/**
 * A receipt code: eleven random symbols and one check symbol, written in three groups of four. The alphabet is Crockford's
 * Base 32 (no I, L, O, U); as there, reading is forgiving about case, dashes, and O or I or L for 0 or 1. The check symbol is a
 * weighted sum over GF(32), so that every single wrong symbol and every exchange of two unlike symbols is noticed.
 *
 * @param text the twelve symbols in upper case without dashes
 */
public record ReceiptCode(String text) {

    private static final String ALPHABET = "0123456789ABCDEFGHJKMNPQRSTVWXYZ";
    private static final int DATA_SYMBOLS = 11;
    /** x⁵ + x² + 1, primitive over GF(2). */
    private static final int FIELD_POLYNOMIAL = 0b100101;

    public ReceiptCode {
        if (!valid(text)) {
            throw new IllegalArgumentException("Not a receipt code: it has twelve letters and digits, such as "
                    + grouped("000000000000") + ", and its last one checks the others");
        }
    }

    /** A new code from the given source of randomness. */
    public static ReceiptCode random(RandomGenerator random) {
        StringBuilder text = new StringBuilder(DATA_SYMBOLS + 1);
        for (int i = 0; i < DATA_SYMBOLS; i++) {
            text.append(ALPHABET.charAt(random.nextInt(32)));
        }
        return new ReceiptCode(text.append(ALPHABET.charAt(weightedSum(text))).toString());
    }

    /**
     * Reads a code as a person types it.
     *
     * @throws IllegalArgumentException when it has the wrong length, a foreign symbol, or a check symbol that does not fit
     */
    public static ReceiptCode parse(String typed) {
        return new ReceiptCode(typed.strip().toUpperCase(Locale.ROOT).replaceAll("[\\s-]", "")
                .replace('O', '0').replace('I', '1').replace('L', '1'));
    }

    /** The code in groups of four, as shown. */
    @Override
    public String toString() {
        return grouped(text);
    }

    private static String grouped(String text) {
        return text.substring(0, 4) + "-" + text.substring(4, 8) + "-" + text.substring(8);
    }

    private static boolean valid(String text) {
        return text.length() == DATA_SYMBOLS + 1
                && text.chars().allMatch(symbol -> ALPHABET.indexOf(symbol) >= 0)
                && weightedSum(text.substring(0, DATA_SYMBOLS)) == ALPHABET.indexOf(text.charAt(DATA_SYMBOLS));
    }

    /** Σ αⁱ·vᵢ for i from 1; the check symbol itself has weight α⁰ = 1. */
    private static int weightedSum(CharSequence data) {
        int sum = 0;
        for (int i = 0; i < data.length(); i++) {
            int value = ALPHABET.indexOf(data.charAt(i));
            for (int power = 0; power <= i; power++) {
                value <<= 1;
                value ^= value >= 32 ? FIELD_POLYNOMIAL : 0;
            }
            sum ^= value;
        }
        return sum;
    }
}
