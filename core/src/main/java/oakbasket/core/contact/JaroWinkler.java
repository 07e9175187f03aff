package oakbasket.core.contact;

/**
 * The similarity of two names after Jaro, raised for a common beginning after Winkler (“String Comparator Metrics and Enhanced Decision Rules in the
 * Fellegi-Sunter Model of Record Linkage”, 1990).
 */
public final class JaroWinkler {

    private static final int LONGEST_PREFIX = 4;
    private static final double PREFIX_WEIGHT = 0.1;

    private JaroWinkler() {
    }

    /** From 0, nothing in common, to 1, equal. Two empty texts are equal. */
    public static double similarity(String one, String other) {
        if (one.equals(other)) {
            return 1;
        }
        if (one.isEmpty() || other.isEmpty()) {
            return 0;
        }
        double jaro = jaro(one, other);
        int prefix = 0;
        while (prefix < Math.min(LONGEST_PREFIX, Math.min(one.length(), other.length())) && one.charAt(prefix) == other.charAt(prefix)) {
            prefix++;
        }
        return jaro + prefix * PREFIX_WEIGHT * (1 - jaro);
    }

    private static double jaro(String one, String other) {
        int reach = Math.max(0, Math.max(one.length(), other.length()) / 2 - 1);
        boolean[] inOne = new boolean[one.length()];
        boolean[] inOther = new boolean[other.length()];
        int common = 0;
        for (int i = 0; i < one.length(); i++) {
            for (int k = Math.max(0, i - reach); k < Math.min(other.length(), i + reach + 1); k++) {
                if (!inOther[k] && one.charAt(i) == other.charAt(k)) {
                    inOne[i] = true;
                    inOther[k] = true;
                    common++;
                    break;
                }
            }
        }
        if (common == 0) {
            return 0;
        }
        int swapped = 0;
        int k = 0;
        for (int i = 0; i < one.length(); i++) {
            if (inOne[i]) {
                while (!inOther[k]) {
                    k++;
                }
                swapped += one.charAt(i) == other.charAt(k) ? 0 : 1;
                k++;
            }
        }
        double m = common;
        return (m / one.length() + m / other.length() + (m - swapped / 2.0) / m) / 3;
    }
}
