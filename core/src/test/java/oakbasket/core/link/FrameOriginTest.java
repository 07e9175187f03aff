package oakbasket.core.link;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import oakbasket.core.fault.FaultyValue;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Origins after RFC 6454; what would say more than one in a policy (CSP Level 3, 2.3.1) is none. */
class FrameOriginTest {

    @ParameterizedTest
    @CsvSource({
        "https://www.example.org, https://www.example.org", "' HTTPS://WWW.Example.ORG/ ', https://www.example.org", "https://example.org:443, https://example.org",
        "http://localhost:8080, http://localhost:8080", "http://example.org:80, http://example.org", "https://b\u00fccher.example.net, https://xn--bcher-kva.example.net"})
    void oneForm(String typed, String origin) {
        assertThat(FrameOrigin.of(typed)).isEqualTo(origin);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "example.org", "https://", "https://*.example.org", "*", "https://example.org/page", "https://a@example.org", "https://example.org; script-src *",
        "https://example.org https://other.example.org", "'self'", "data:", "javascript:alert(1)", "https://exa\nmple.org", "https://example.org:99999", "https://example.org,x", "https://-a.example.org",
        "ftp://example.org", "https://[::1]"})
    void whatIsNone(String typed) {
        assertThatThrownBy(() -> FrameOrigin.of(typed)).isInstanceOf(FaultyValue.class);
    }
}
