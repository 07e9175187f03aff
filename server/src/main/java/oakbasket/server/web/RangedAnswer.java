package oakbasket.server.web;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.List;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpRange;
import org.springframework.http.HttpStatus;

/**
 * An answer that can be had from any byte on (RFC 9110, 13 and 14). Of several ranges at once none is honoured, which the standard allows: the whole is sent.
 *
 * @param status whether the whole is sent, a part of it, or nothing and why
 * @param length of the whole
 * @param from the first byte that is to be sent
 * @param to the one after the last; {@code from} where none is sent
 * @param tag the whole, as an entity tag
 */
public record RangedAnswer(HttpStatus status, long length, long from, long to, String tag) {

    /** What is asked of so many bytes; nothing is answered yet. @param seal differs whenever a byte of them would */
    public static RangedAnswer of(HttpServletRequest request, long length, String seal) {
        String tag = "\"" + seal + "\"";
        boolean head = request.getMethod().equals("HEAD");
        String match = request.getHeader(HttpHeaders.IF_MATCH);
        if (match != null && !named(match, tag, false)) {
            return new RangedAnswer(HttpStatus.PRECONDITION_FAILED, length, 0, 0, tag);
        }
        String noneMatch = request.getHeader(HttpHeaders.IF_NONE_MATCH);
        if (noneMatch != null && named(noneMatch, tag, true)) {
            return new RangedAnswer(HttpStatus.NOT_MODIFIED, length, 0, 0, tag);
        }
        // Only a GET can ask for a part (RFC 9110, 14.2).
        HttpRange range = head ? null : range(request.getHeader(HttpHeaders.RANGE), request.getHeader(HttpHeaders.IF_RANGE), tag);
        if (range == null) {
            return new RangedAnswer(HttpStatus.OK, length, 0, head ? 0 : length, tag);
        }
        long from = range.getRangeStart(length);
        return from >= length ? new RangedAnswer(HttpStatus.REQUESTED_RANGE_NOT_SATISFIABLE, length, 0, 0, tag)
                : new RangedAnswer(HttpStatus.PARTIAL_CONTENT, length, from, range.getRangeEnd(length) + 1, tag);
    }

    /** Whether bytes are sent. */
    public boolean sends() {
        return to > from;
    }

    /** Writes status and headers. */
    public void head(HttpServletResponse response) {
        response.setStatus(status.value());
        response.setHeader(HttpHeaders.ACCEPT_RANGES, "bytes");
        response.setHeader(HttpHeaders.ETAG, tag);
        response.setHeader(HttpHeaders.CACHE_CONTROL, "private, no-cache");
        if (status == HttpStatus.PARTIAL_CONTENT) {
            response.setHeader(HttpHeaders.CONTENT_RANGE, "bytes " + from + "-" + (to - 1) + "/" + length);
        } else if (status == HttpStatus.REQUESTED_RANGE_NOT_SATISFIABLE) {
            response.setHeader(HttpHeaders.CONTENT_RANGE, "bytes */" + length);
        }
        if (status.is2xxSuccessful()) {
            response.setContentLengthLong(sends() ? to - from : length);
        }
    }

    /** What cannot be read as one range asks for nothing, and the whole is sent. */
    private static @Nullable HttpRange range(@Nullable String range, @Nullable String condition, String tag) {
        if (range == null || condition != null && !condition.equals(tag)) {
            return null;
        }
        try {
            List<HttpRange> asked = HttpRange.parseRanges(range);
            return asked.size() == 1 ? asked.get(0) : null;
        } catch (IllegalArgumentException wrong) {
            return null;
        }
    }

    /** @param weak whether a tag counts also where it is told as weak */
    private static boolean named(String condition, String tag, boolean weak) {
        return condition.strip().equals("*") || Stream.of(condition.split(",")).map(String::strip).anyMatch(one -> one.equals(tag) || weak && one.equals("W/" + tag));
    }
}
