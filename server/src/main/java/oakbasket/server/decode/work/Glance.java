package oakbasket.server.decode.work;

import java.util.List;

/**
 * What can be shown of a file.
 *
 * @param kind what it is shown as
 * @param text the beginning of its text; empty unless it is shown so
 * @param rows the first rows of its first table; empty unless it is shown so
 * @param track the points of its track as latitude and longitude in degrees (WGS 84), parts after one another; empty unless it is shown so
 * @param cut whether there is more than is shown
 */
public record Glance(Kind kind, String text, List<List<String>> rows, List<List<List<Double>>> track, boolean cut) {

    /** What a file is shown as. */
    public enum Kind {
        TEXT,
        TABLE,
        TRACK,
        /** It cannot be shown. */
        NONE,
        /** It could be shown, but is damaged or too large to be looked into. */
        UNREADABLE
    }

    static Glance text(String text, boolean cut) {
        return new Glance(Kind.TEXT, text, List.of(), List.of(), cut);
    }

    static Glance table(List<List<String>> rows, boolean cut) {
        return new Glance(Kind.TABLE, "", rows, List.of(), cut);
    }

    static Glance track(List<List<List<Double>>> track, boolean cut) {
        return new Glance(Kind.TRACK, "", List.of(), track, cut);
    }

    /** A glance that shows nothing, and why. */
    public static Glance of(Kind kind) {
        return new Glance(kind, "", List.of(), List.of(), false);
    }
}
