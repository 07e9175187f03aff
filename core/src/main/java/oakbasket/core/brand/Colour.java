package oakbasket.core.brand;

import java.util.Locale;
import java.util.regex.Pattern;
import oakbasket.core.fault.FaultyValue;

/**
 * A colour of sRGB.
 *
 * @param red and {@code green}, {@code blue}: from 0 to 255
 */
public record Colour(int red, int green, int blue) {

    /** The darkest. */
    public static final Colour BLACK = new Colour(0, 0, 0);
    /** The lightest. */
    public static final Colour WHITE = new Colour(255, 255, 255);

    private static final Pattern HEX = Pattern.compile("#?([0-9a-fA-F]{6})");

    /** @throws IllegalArgumentException when a part is out of its range */
    public Colour {
        if ((red | green | blue) < 0 || Math.max(red, Math.max(green, blue)) > 255) {
            throw new IllegalArgumentException();
        }
    }

    /**
     * Reads six hexadecimal digits, with or without a number sign before them.
     *
     * @throws FaultyValue when it is something else
     */
    public static Colour parse(String text) {
        var found = HEX.matcher(text.strip());
        if (!found.matches()) {
            throw new FaultyValue("not-a-colour");
        }
        int all = Integer.parseInt(found.group(1), 16);
        return new Colour(all >> 16, all >> 8 & 0xff, all & 0xff);
    }

    /** As CSS has it. */
    public String hex() {
        return String.format(Locale.ROOT, "#%02x%02x%02x", red, green, blue);
    }

    /** How light it is, from 0 to 1 (WCAG 2.2, relative luminance). */
    public double luminance() {
        return 0.2126 * linear(red) + 0.7152 * linear(green) + 0.0722 * linear(blue);
    }

    /** From 1, the same, to 21, black on white (WCAG 2.2, contrast ratio). */
    public double contrast(Colour other) {
        double mine = luminance() + 0.05;
        double theirs = other.luminance() + 0.05;
        return Math.max(mine, theirs) / Math.min(mine, theirs);
    }

    /** Something between this and another colour. @param share of the other one, from 0 to 1 */
    public Colour towards(Colour other, double share) {
        return new Colour(mix(red, other.red, share), mix(green, other.green, share), mix(blue, other.blue, share));
    }

    private static int mix(int from, int to, double share) {
        return (int) Math.round(from + (to - from) * share);
    }

    private static double linear(int part) {
        double share = part / 255.0;
        return share <= 0.04045 ? share / 12.92 : Math.pow((share + 0.055) / 1.055, 2.4);
    }
}
