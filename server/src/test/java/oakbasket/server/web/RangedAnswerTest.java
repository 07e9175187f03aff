package oakbasket.server.web;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import jakarta.servlet.http.HttpServletRequest;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** RFC 9110: 13.1 (If-Match, If-None-Match, If-Range, in their order) and 14.1 to 14.4 (ranges), of 1,000 bytes with the entity tag "seal". */
class RangedAnswerTest {

    private static final long LENGTH = 1_000;

    @ParameterizedTest(name = "{0} Range {1}: {2}, from {3} to before {4}")
    @CsvSource(delimiter = '|', value = {
        "GET  |                   | OK                              | 0   | 1000",
        "HEAD |                   | OK                              | 0   | 0",
        "GET  | bytes=0-0         | PARTIAL_CONTENT                 | 0   | 1",
        "GET  | bytes=0-499       | PARTIAL_CONTENT                 | 0   | 500",
        "GET  | bytes=500-        | PARTIAL_CONTENT                 | 500 | 1000",
        "GET  | bytes=999-        | PARTIAL_CONTENT                 | 999 | 1000",
        "GET  | bytes=500-999999  | PARTIAL_CONTENT                 | 500 | 1000", // 14.1.2: an end beyond the end is the end
        "GET  | bytes=-1          | PARTIAL_CONTENT                 | 999 | 1000",
        "GET  | bytes=-5000       | PARTIAL_CONTENT                 | 0   | 1000", // a suffix longer than the whole is the whole
        "GET  | bytes=1000-       | REQUESTED_RANGE_NOT_SATISFIABLE | 0   | 0",
        "GET  | bytes=0-1,5-6     | OK                              | 0   | 1000", // several are not honoured, which 14.2 allows
        "GET  | bytes=9-1         | OK                              | 0   | 1000", // 14.1.1: invalid, and ignored
        "GET  | bytes=            | OK                              | 0   | 1000",
        "GET  | items=0-1         | OK                              | 0   | 1000", // 14.2: an unknown unit is ignored
        "GET  | bytes=a-b         | OK                              | 0   | 1000",
        "GET  | bytes=99999999999999999999- | OK                    | 0   | 1000",
        "HEAD | bytes=0-499       | OK                              | 0   | 0"})
    void rangesAreHonouredOrIgnored(String method, String range, String status, long from, long to) {
        RangedAnswer answer = RangedAnswer.of(request(method, range, null, null, null), LENGTH, "seal");
        assertThat(answer.status().name()).isEqualTo(status);
        assertThat(answer.from()).isEqualTo(from);
        assertThat(answer.to()).isEqualTo(to);
        assertThat(answer.sends()).isEqualTo(to > from);
    }

    @ParameterizedTest(name = "If-Match {0}, If-None-Match {1}, If-Range {2}: {3}")
    @CsvSource(delimiter = '|', quoteCharacter = '\'', value = {
        "\"seal\"          |                   |            | PARTIAL_CONTENT",
        "*                 |                   |            | PARTIAL_CONTENT",
        "\"a\", \"seal\"   |                   |            | PARTIAL_CONTENT",
        "\"other\"         |                   |            | PRECONDITION_FAILED",
        "W/\"seal\"        |                   |            | PRECONDITION_FAILED", // 13.1.1: a strong comparison
        "                  | \"seal\"          |            | NOT_MODIFIED",
        "                  | W/\"seal\"        |            | NOT_MODIFIED", // 13.1.2: a weak one
        "                  | *                 |            | NOT_MODIFIED",
        "                  | \"a\", \"b\"      |            | PARTIAL_CONTENT",
        "\"other\"         | \"seal\"          |            | PRECONDITION_FAILED", // 13.2.2: If-Match comes first
        "                  |                   | \"seal\"   | PARTIAL_CONTENT",
        "                  |                   | \"other\"  | OK", // 13.1.5: of another version the whole
        "                  |                   | W/\"seal\" | OK",
        "                  |                   | Mon, 01 Jun 2026 09:00:00 GMT | OK"})
    void conditionsComeBeforeRanges(String match, String noneMatch, String ifRange, String status) {
        assertThat(RangedAnswer.of(request("GET", "bytes=0-1", match, noneMatch, ifRange), LENGTH, "seal").status().name()).isEqualTo(status);
    }

    private static HttpServletRequest request(String method, String range, String match, String noneMatch, String ifRange) {
        HttpServletRequest request = mock(HttpServletRequest.class);
        when(request.getMethod()).thenReturn(method);
        when(request.getHeader("Range")).thenReturn(range);
        when(request.getHeader("If-Match")).thenReturn(match);
        when(request.getHeader("If-None-Match")).thenReturn(noneMatch);
        when(request.getHeader("If-Range")).thenReturn(ifRange);
        return request;
    }
}
