package oakbasket.server.http;

import java.util.LinkedHashMap;
import java.util.Map;
import org.springframework.http.server.PathContainer;
import org.springframework.web.util.pattern.PathPattern;
import org.springframework.web.util.pattern.PathPatternParser;

/**
 * How long a request body may be, by what is served. Everything that is not named here is small, so that a forgotten or disguised address is the stricter
 * for it.
 */
final class BodyLimits {

    /** What fits a form or a few ids. */
    static final long SMALL = 64 * 1024;

    private static final long MEBIBYTE = 1024 * 1024;
    /** What the bytes of files come to: bounded by the length announced when the upload began, never held in memory. */
    private static final long STREAMED = Long.MAX_VALUE;

    private static final Map<String, Long> LARGER = new LinkedHashMap<>();
    private static final Map<PathPattern, Long> PATTERNS = new LinkedHashMap<>();

    static {
        LARGER.put("/api/basket/files", 2 * MEBIBYTE + SMALL);
        LARGER.put("/api/uploads", STREAMED);
        LARGER.put("/api/uploads/{id}", STREAMED);
        // Sheets carry everybody asked; 50,000 people at 120 bytes each.
        LARGER.put("/api/rounds", 12 * MEBIBYTE);
        LARGER.put("/api/rounds/{id}/sheet", 12 * MEBIBYTE);
        LARGER.put("/api/rounds/{id}/people", 12 * MEBIBYTE);
        LARGER.put("/api/people/read", 12 * MEBIBYTE);
        LARGER.put("/api/rounds/{id}/acts", 2 * MEBIBYTE);
        LARGER.put("/api/rounds/{id}/change", MEBIBYTE);
        LARGER.put("/api/rounds/{id}/change/preview", MEBIBYTE);
        LARGER.put("/api/rounds/{id}/letters", 2 * MEBIBYTE);
        LARGER.put("/api/rounds/{id}/letters/preview", 2 * MEBIBYTE);
        LARGER.put("/api/groups/members", 2 * MEBIBYTE);
        LARGER.put("/api/files/unaccept", 2 * MEBIBYTE);
        LARGER.put("/api/contacts/import", 20 * MEBIBYTE);
        LARGER.put("/api/rounds/{id}/rehearsal/files", 8 * MEBIBYTE);
        LARGER.put("/api/loose", STREAMED);
        LARGER.put("/api/parcels/{id}/files/{file}/bytes", STREAMED);
        // As many names as a parcel holds files, at 300 bytes each; people at 120.
        LARGER.put("/api/parcels/{id}/files", 3 * MEBIBYTE);
        LARGER.put("/api/parcels/{id}", MEBIBYTE);
        LARGER.put("/api/parcels/{id}/people", MEBIBYTE);
        LARGER.put("/api/parcels/{id}/picked", MEBIBYTE);
        LARGER.put("/api/post-office/letters/{id}/answer", 25 * MEBIBYTE);
        LARGER.put("/api/outlook/changes", 2 * MEBIBYTE);
        LARGER.put("/api/brand/logos", 3 * MEBIBYTE);
        LARGER.put("/api/forms", 20 * MEBIBYTE);
        LARGER.put("/api/calendars/read", 5 * MEBIBYTE);
        LARGER.put("/api/calendars/{id}/days", MEBIBYTE);
        LARGER.put("/api/rules/{round}", 2 * MEBIBYTE);
        LARGER.put("/api/rules/{round}/check", 2 * MEBIBYTE);
        LARGER.put("/api/refilings/trial", 2 * MEBIBYTE);
        LARGER.put("/api/series", MEBIBYTE);
        LARGER.put("/api/series/preview", MEBIBYTE);
        LARGER.put("/api/series/{id}", MEBIBYTE);
        PathPatternParser parser = new PathPatternParser();
        LARGER.forEach((pattern, most) -> PATTERNS.put(parser.parse(pattern), most));
    }

    private BodyLimits() {
    }

    /** The most bytes for what a handler with this pattern serves, such as {@code /api/rounds/{id}/sheet}. */
    static long ofPattern(String pattern) {
        return LARGER.getOrDefault(pattern, SMALL);
    }

    /** The most bytes for a decoded path. */
    static long ofPath(String path) {
        PathContainer parsed = PathContainer.parsePath(path);
        return PATTERNS.entrySet().stream().filter(entry -> entry.getKey().matches(parsed)).mapToLong(Map.Entry::getValue).max().orElse(SMALL);
    }
}
