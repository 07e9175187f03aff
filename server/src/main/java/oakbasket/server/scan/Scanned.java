package oakbasket.server.scan;

import oakbasket.core.arrival.ScanVerdict;

/**
 * What a scanner said of a file.
 *
 * @param found what it found, by the scanner's own name; with {@link ScanVerdict#UNCHECKED} empty
 * @param readable whether asking again later makes sense; false where the scanner will never take this file
 */
public record Scanned(ScanVerdict verdict, String found, boolean readable) {

    /** Nothing was found. */
    public static final Scanned CLEAN = new Scanned(ScanVerdict.CLEAN, "", true);
    /** The scanner did not answer. */
    public static final Scanned AWAY = new Scanned(ScanVerdict.UNCHECKED, "", true);
    /** The scanner does not take files like this one. */
    public static final Scanned NOT_TAKEN = new Scanned(ScanVerdict.UNCHECKED, "", false);

    private static final int LONGEST = 300;

    /** Something was found. */
    public static Scanned found(String name) {
        return new Scanned(ScanVerdict.FOUND, name.length() > LONGEST ? name.substring(0, LONGEST) : name, true);
    }
}
