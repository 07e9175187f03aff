package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.nio.ByteBuffer;
import java.security.GeneralSecurityException;
import java.time.Duration;
import java.time.Instant;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import oakbasket.core.team.Role;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** Signing in with a code besides the password. The codes are worked out here by RFC 4226 and 6238 alone, not by the library of the product. */
class SecondFactorTest {

    private static final String ALPHABET = "ABCDEFGHIJKLMNOPQRSTUVWXYZ234567";
    private final Instant before = RunningApp.CLOCK.instant();

    @AfterEach
    void asItWas() {
        RunningApp.CLOCK.set(before);
    }

    /** RFC 4226, 5.3, of the counter that RFC 6238, 4.2, makes of a time. */
    static String code(byte[] secret, Instant at, int digits) {
        try {
            Mac mac = Mac.getInstance("HmacSHA1");
            mac.init(new SecretKeySpec(secret, "RAW"));
            byte[] hash = mac.doFinal(ByteBuffer.allocate(8).putLong(at.getEpochSecond() / 30).array());
            int offset = hash[hash.length - 1] & 0xf;
            int number = ByteBuffer.wrap(hash).getInt(offset) & 0x7fffffff;
            return String.format("%0" + digits + "d", number % (long) Math.pow(10, digits));
        } catch (GeneralSecurityException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    private static byte[] base32(String text) {
        ByteArrayInputStream in = new ByteArrayInputStream(text.replaceAll("\\s", "").getBytes());
        ByteBuffer out = ByteBuffer.allocate(text.replaceAll("\\s", "").length() * 5 / 8);
        int held = 0;
        int bits = 0;
        for (int letter = in.read(); letter >= 0 && out.hasRemaining(); letter = in.read()) {
            held = held << 5 | ALPHABET.indexOf(letter);
            bits += 5;
            if (bits >= 8) {
                out.put((byte) (held >> bits - 8));
                bits -= 8;
            }
        }
        return out.array();
    }

    /** RFC 6238, appendix B, the vectors of SHA-1: this test's own reading of the standard first. */
    @ParameterizedTest
    @CsvSource({"59, 94287082", "1111111109, 07081804", "1111111111, 14050471", "1234567890, 89005924", "2000000000, 69279037", "20000000000, 65353130"})
    void theTestItselfReadsTheStandardRight(long second, String code) {
        assertThat(code("12345678901234567890".getBytes(), Instant.ofEpochSecond(second), 8)).isEqualTo(code);
    }

    private static Http.Answer signIn(Http at, String email, String code) {
        at.get("/api/session");
        return at.post("/api/session", "{\"email\":\"" + email + "\",\"password\":\"" + RunningApp.PASSWORD + "\",\"code\":\"" + code + "\"}");
    }

    @Test
    void aCodeIsAskedForOnceItWasRightAndEachWorksOnce() {
        TestTeam one = TestTeam.of(Role.COORDINATOR);
        String email = one.account.email();
        JsonNode offer = one.desk.post("/api/second-factor", "").json();
        byte[] secret = base32(offer.path("secret").asString());
        assertThat(secret).hasSize(20);
        assertThat(offer.path("picture").asString()).startsWith("<svg");
        assertThat(signIn(new Http(), email, "").status()).as("only offered").isEqualTo(200);
        RunningApp.CLOCK.set(Instant.parse("2026-06-05T10:00:10Z"));
        offer = one.desk.post("/api/second-factor", "").json();
        secret = base32(offer.path("secret").asString());
        String body = "{\"offer\":\"" + offer.path("offer").asString() + "\",\"code\":\"%s\",\"password\":\"%s\"}";
        Instant now = RunningApp.CLOCK.instant();
        assertThat(one.desk.put("/api/second-factor", body.formatted("000000", RunningApp.PASSWORD)).at("code")).isNotEmpty();
        assertThat(one.desk.put("/api/second-factor", body.formatted(code(secret, now, 6), "not my password")).at("password")).isNotEmpty();
        TestTeam other = TestTeam.of(Role.COORDINATOR);
        assertThat(other.desk.put("/api/second-factor", body.formatted(code(secret, now, 6), RunningApp.PASSWORD)).at("code")).as("offered to somebody else").isNotEmpty();
        JsonNode spare = one.desk.put("/api/second-factor", body.formatted(code(secret, now, 6), RunningApp.PASSWORD)).json().path("codes");
        assertThat(spare.size()).isEqualTo(8);
        assertThat(signIn(new Http(), email, "").problem()).isEqualTo("second-factor-needed");
        assertThat(signIn(new Http(), email, code(secret, now, 6)).problem()).as("the one it began with").isEqualTo("second-factor-wrong");
        assertThat(signIn(new Http(), email, code(secret, now.plusSeconds(30), 6)).status()).as("a clock that is ahead").isEqualTo(200);
        assertThat(signIn(new Http(), email, code(secret, now.plusSeconds(30), 6)).problem()).as("once").isEqualTo("second-factor-wrong");
        assertThat(signIn(new Http(), email, code(secret, now.plusSeconds(90), 6)).problem()).as("too far ahead").isEqualTo("second-factor-wrong");
        RunningApp.CLOCK.set(now.plus(Duration.ofMinutes(5)));
        Instant later = RunningApp.CLOCK.instant();
        String typed = code(secret, later, 6);
        assertThat(signIn(new Http(), email, typed.substring(0, 3) + " " + typed.substring(3)).status()).isEqualTo(200);
        String first = spare.get(0).asString();
        assertThat(signIn(new Http(), email, first.toUpperCase().replace("-", " ")).status()).as("a spare code").isEqualTo(200);
        assertThat(signIn(new Http(), email, first).problem()).as("once").isEqualTo("second-factor-wrong");
        assertThat(one.desk.get("/api/second-factor").json().path("spareCodes").asInt()).isEqualTo(7);
        assertThat(one.desk.post("/api/second-factor/end", "{\"password\":\"wrong one here\"}").at("password")).isNotEmpty();
        assertThat(Http.desk().post("/api/team/" + one.id() + "/end-second-factor", "").status()).as("who lost everything").isEqualTo(200);
        assertThat(signIn(new Http(), email, "").status()).isEqualTo(200);
    }

    @Test
    void guessingCodesIsEndedByTheLimits() {
        TestTeam one = TestTeam.of(Role.COORDINATOR);
        JsonNode offer = one.desk.post("/api/second-factor", "").json();
        byte[] secret = base32(offer.path("secret").asString());
        one.desk.put("/api/second-factor", "{\"offer\":\"" + offer.path("offer").asString() + "\",\"code\":\"" + code(secret, RunningApp.CLOCK.instant(), 6) + "\",\"password\":\"" + RunningApp.PASSWORD + "\"}");
        Http known = new Http();
        RunningApp.CLOCK.set(RunningApp.CLOCK.instant().plusSeconds(120));
        assertThat(signIn(known, one.account.email(), code(secret, RunningApp.CLOCK.instant(), 6)).status()).isEqualTo(200);
        int refused = 0;
        for (int i = 0; i < 14 && refused == 0; i++) {
            refused = signIn(known, one.account.email(), String.format("%06d", i)).status() == 429 ? i : 0;
        }
        assertThat(refused).isBetween(8, 11);
    }
}
