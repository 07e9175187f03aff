package oakbasket.server.web;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class CallerTest {

    /** Source: RFC 4291 §2.5.4 and RFC 6177: a site has at least 64 bits of addresses to itself. */
    @ParameterizedTest
    @CsvSource({"203.0.113.7, 203.0.113.7", "2001:db8:1:2:3:4:5:6, 20010db800010002/64", "2001:db8:1:2::ffff, 20010db800010002/64", "[2001:db8:1:3::1], 20010db800010003/64",
        "::ffff:203.0.113.7, 203.0.113.7", "no address, no address"})
    void anAddressCountsAsWhoeverHasIt(String address, String counted) {
        assertThat(Caller.of(address)).isEqualTo(counted);
    }
}
