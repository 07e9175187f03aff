package oakbasket.core.brand;

/**
 * Which colours an office can have on its pages: whatever is written in them or on them must be readable (WCAG 2.2, 1.4.3: at least 4.5 to 1). The office's colour is
 * written on cards and on the background, and the cards' colour is written on it; the text of the pages is written on the background.
 */
public final class BrandColours {

    /** The least contrast. */
    public static final double LEAST = 4.5;
    /** The colour of cards. */
    public static final Colour CARD = Colour.parse("#fffdf8");
    /** The colour of text. */
    public static final Colour TEXT = Colour.parse("#3a2f25");
    /** The office's colour as long as nobody chose another. */
    public static final Colour USUAL = Colour.parse("#47682f");
    /** The background as long as nobody chose another. */
    public static final Colour USUAL_BACKGROUND = Colour.parse("#f6f1e6");
    /** The colour of quiet text. */
    public static final Colour QUIET = Colour.parse("#5b6670");

    private static final int STEPS = 256;

    private BrandColours() {
    }

    /** The least of the contrasts that the office's colour has on a background. */
    public static double contrast(Colour colour, Colour background) {
        return Math.min(colour.contrast(CARD), colour.contrast(background));
    }

    /** The least of the contrasts that text has on a background. */
    public static double contrastOfText(Colour background) {
        return Math.min(TEXT.contrast(background), QUIET.contrast(background));
    }

    /** The nearest darker colour of the same kind that can be read on this background; itself when it can. The background has to be one that can be used. */
    public static Colour nearest(Colour colour, Colour background) {
        for (int step = 0; step < STEPS; step++) {
            Colour darker = colour.towards(Colour.BLACK, step / (double) STEPS);
            if (contrast(darker, background) >= LEAST) {
                return darker;
            }
        }
        return Colour.BLACK;
    }

    /** The nearest lighter background on which text can be read; itself when it can. */
    public static Colour nearestBackground(Colour background) {
        for (int step = 0; step < STEPS; step++) {
            Colour lighter = background.towards(Colour.WHITE, step / (double) STEPS);
            if (contrastOfText(lighter) >= LEAST) {
                return lighter;
            }
        }
        return Colour.WHITE;
    }
}
