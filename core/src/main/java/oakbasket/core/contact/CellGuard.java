package oakbasket.core.contact;

import java.util.regex.Pattern;

/**
 * Keeps a spreadsheet from computing a cell of a table that is taken away (OWASP, CSV Injection), by a quote mark before what would begin a formula; and takes
 * it away again when the table comes back. A formula may also begin after characters that are not seen, in full-width letters, or after a character that the
 * reader's spreadsheet takes for the end of a cell, as many take the semicolon.
 */
public final class CellGuard {

    /** Spaces of every kind, and characters that only format: a byte order mark, zero-width and direction marks. */
    private static final String UNSEEN = "[\\p{Z}\\p{Cf}]*";
    private static final String FORMULA = "[=+@\\t\\r\\-\uFF1D\uFF0B\uFF20\uFF0D]";
    private static final Pattern TO_GUARD = Pattern.compile("(^|[;|\t\r\n])(?='*" + UNSEEN + FORMULA + ")");
    private static final Pattern GUARDED = Pattern.compile("(^|[;|\t\r\n])'(?='*" + UNSEEN + FORMULA + ")");

    private CellGuard() {
    }

    /** The cell as it is to be written. */
    public static String guarded(String cell) {
        return TO_GUARD.matcher(cell).replaceAll("$1'");
    }

    /** The cell as it was before {@link #guarded}. */
    public static String plain(String written) {
        return GUARDED.matcher(written).replaceAll("$1");
    }
}
