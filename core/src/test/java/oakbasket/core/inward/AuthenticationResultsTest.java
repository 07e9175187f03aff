package oakbasket.core.inward;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.List;
import oakbasket.core.inward.AuthenticationResults.Word;
import org.junit.jupiter.api.Assertions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Sources: RFC 8601, 2.2 (grammar), 2.5 and 5 (whose field is read) and appendix B (examples); RFC 7489, 3.1 (alignment); RFC 5322, 3.2.2 and 3.2.4 (comments, quoted strings); RFC 5890 (domains in two forms). */
class AuthenticationResultsTest {

    private static final String US = "mx.oak.example";

    private static Word word(String author, String... fields) {
        return AuthenticationResults.of(List.of(fields), US, author);
    }

    /** The fields of RFC 8601, appendix B.2 to B.6, from memory, with the name of the server taken from each. */
    @ParameterizedTest(name = "{0} for {2}")
    @CsvSource(delimiter = '|', value = {
        "example.org 1; none                                                                                              | example.org       | example.net | SILENT",
        "example.com; spf=pass smtp.mailfrom=example.net                                                                  | example.com       | example.net | VOUCHED",
        "example.com; auth=pass (cram-md5) smtp.auth=sender@example.net; spf=pass smtp.mailfrom=example.net               | example.com       | example.net | VOUCHED",
        "example.com; iprev=pass policy.iprev=192.0.2.200                                                                 | example.com       | example.net | SILENT",
        "example.com; auth=pass (cram-md5) smtp.auth=sender@example.com; spf=fail smtp.mailfrom=example.com               | example.com       | example.com | SILENT",
        "example.com; dkim=pass (good signature) header.d=example.com                                                     | example.com       | example.com | VOUCHED",
        "example.com; dkim=pass reason=\"good signature\" header.i=@mail-router.example.net; dkim=fail reason=\"bad signature\" header.i=@newyork.example.com | example.com | newyork.example.com | SILENT",
        "example.net; dkim=pass (good signature) header.i=@newyork.example.com                                            | example.net       | newyork.example.com | SILENT",
        "foo.example.net (foobar) 1 (baz); dkim (Because I like it) / 1 (One yay) = (wait for it) fail policy (A dot can go here) . (like that) expired (this surprised me) = (as I wasn't expecting it) 1362471462 | foo.example.net | example.net | SILENT"})
    void theExamplesOfTheStandardAreRead(String field, String server, String author, Word word) {
        assertThat(AuthResultsField.parse(field)).as("in the grammar").isPresent();
        assertThat(AuthResultsField.parse(field).orElseThrow().serverId()).isEqualTo(server);
        assertThat(AuthenticationResults.of(List.of(field), server, author)).isEqualTo(word);
        assertThat(AuthenticationResults.of(List.of(field), "", author)).as("nobody is trusted").isEqualTo(Word.SILENT);
    }

    /** As widespread servers write them (common practice, no source). */
    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '|', value = {
        "mx.oak.example; dkim=pass header.i=@example.org header.s=s1 header.b=Nf2+q/Z= ; spf=pass (oak: domain of prvs=1a=ada@example.org designates 192.0.2.1 as permitted sender) smtp.mailfrom=\"prvs=1a=ada@example.org\"; dmarc=pass (p=REJECT sp=REJECT dis=NONE) header.from=example.org",
        "mx.oak.example; spf=pass (sender IP is 192.0.2.1) smtp.mailfrom=example.org; dkim=pass (signature was verified) header.d=example.org;dmarc=pass action=none header.from=example.org;compauth=pass reason=100",
        "mx.oak.example 1; dmarc=pass (p=quarantine dis=none) header.from=EXAMPLE.ORG",
        "MX.Oak.Example; DMARC = PASS Header.From = \"example.org\";",
        "\"mx.oak.example\"; dmarc=pass header.from=example.org",
        "mx.oak.example; dmarc=none header.from=example.org; dkim=pass header.d=example.org",
        "mx.oak.example; spf=pass smtp.mailfrom=ada@example.org",
        "mx.oak.example; dkim=fail header.d=list.example; dkim=pass header.d=example.org"})
    void whatHonestServersWriteIsUnderstood(String field) {
        assertThat(word("example.org", field)).isEqualTo(Word.VOUCHED);
        assertThat(word("example.net", field)).as("for another author").isNotEqualTo(Word.VOUCHED);
        assertThat(word("", field)).as("no single author").isNotEqualTo(Word.VOUCHED);
    }

    /** Fields in which something says pass that is none, or is one for somebody else: a stranger chooses the envelope's sender, domains, selectors and whatever a server copies into comments. */
    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '|', value = {
        "mx.oak.example; spf=pass smtp.mailfrom=\"x;dmarc=pass\"@evil.example; dmarc=fail header.from=example.org | DENIED",
        "mx.oak.example; spf=pass smtp.mailfrom=\"x; dmarc=pass header.from=example.org\"@evil.example           | SILENT",
        "mx.oak.example; spf=pass smtp.mailfrom=\"x\\\"; dmarc=pass header.from=example.org; \"@evil.example        | SILENT",
        "mx.oak.example; spf=pass smtp.mailfrom=\"@example.org\"@evil.example                                    | SILENT",
        "mx.oak.example; spf=pass smtp.mailfrom=example.org@evil.example                                         | SILENT",
        "mx.oak.example; spf=pass (a (nested) ; dmarc=pass header.from=example.org) smtp.mailfrom=evil.example   | SILENT",
        "mx.oak.example; spf=fail (a (b ) ; dmarc=pass header.from=example.org ) smtp.mailfrom=evil.example      | SILENT",
        "mx.oak.example; spf=fail (\\) ; dmarc=pass header.from=example.org) smtp.mailfrom=evil.example           | SILENT",
        "mx.oak.example; spf=fail (\\(; dmarc=pass header.from=example.org                                        | SILENT",
        "mx.oak.example; spf=fail (never ends; dmarc=pass header.from=example.org                                | SILENT",
        "mx.oak.example; spf=fail smtp.mailfrom=\"never ends; dmarc=pass header.from=example.org                  | SILENT",
        "mx.oak.example; dmarc=pass header.from=evil.example                                                     | DENIED",
        "mx.oak.example; dmarc=pass header.from=sub.example.org                                                  | DENIED",
        "mx.oak.example; dmarc=pass header.from=example.org.evil.example                                         | DENIED",
        "mx.oak.example; dmarc=pass header.from=xexample.org                                                     | DENIED",
        "mx.oak.example; dmarc=pass header.from=evil.example header.from=example.org                             | SILENT",
        "mx.oak.example; dmarc=pass header.from=example.org; dmarc=pass header.from=evil.example                 | DENIED",
        "mx.oak.example; dmarc=pass header.from=example.org; dmarc=fail header.from=example.org                  | DENIED",
        "mx.oak.example; dmarc=fail header.from=example.org; dkim=pass header.d=example.org                      | DENIED",
        "mx.oak.example; dmarc=temperror header.from=example.org; dkim=pass header.d=example.org                 | SILENT",
        "mx.oak.example; dmarc=permerror header.from=example.org; spf=pass smtp.mailfrom=example.org             | SILENT",
        "mx.oak.example; dmarc=pass                                                                              | SILENT",
        "mx.oak.example; dmarc=pass reason=\"header.from=example.org\"                                           | SILENT",
        "mx.oak.example; dmarc=pass smtp.from=example.org                                                        | SILENT",
        "mx.oak.example; dmarc=passed header.from=example.org                                                    | SILENT",
        "mx.oak.example; x-dmarc=pass header.from=example.org                                                    | SILENT",
        "mx.oak.example; dmarc=bestguesspass header.from=example.org                                             | SILENT",
        "mx.oak.example; dmarc=\"pass\" header.from=example.org                                                  | SILENT",
        "mx.oak.example; dmarc pass header.from=example.org                                                      | SILENT",
        "mx.oak.example; dmarc=pass; header.from=example.org                                                     | SILENT",
        "mx.oak.example; dmarc=passheader.from=example.org                                                       | SILENT",
        "mx.oak.example; none; dmarc=pass header.from=example.org                                                | SILENT",
        "mx.oak.example;; dmarc=pass header.from=example.org                                                     | SILENT",
        "mx.oak.example 2; dmarc=pass header.from=example.org                                                    | SILENT",
        "mx.oak.example 1 1; dmarc=pass header.from=example.org                                                  | SILENT",
        "mx.oak.example.evil; dmarc=pass header.from=example.org                                                 | SILENT",
        "evil mx.oak.example; dmarc=pass header.from=example.org                                                 | SILENT",
        "(mx.oak.example); dmarc=pass header.from=example.org                                                    | SILENT",
        "evil.example (; mx.oak.example); dmarc=pass header.from=example.org                                     | SILENT",
        "dmarc=pass header.from=example.org                                                                      | SILENT",
        "; dmarc=pass header.from=example.org                                                                    | SILENT",
        "mx.oak.example, dmarc=pass header.from=example.org                                                      | SILENT",
        "mx.oak.example; dkim=pass header.i=@example.org                                                         | SILENT",
        "mx.oak.example; dkim=pass header.d=evil.example header.i=@example.org                                   | SILENT",
        "mx.oak.example; dkim=pass header.d=org                                                                  | SILENT",
        "mx.oak.example; dkim=pass header.d=example.org header.d=evil.example                                    | SILENT",
        "mx.oak.example; spf=pass smtp.helo=example.org                                                          | SILENT",
        "mx.oak.example; spf=pass smtp.mailfrom=evil.example; spf=pass smtp.mailfrom=example.org                 | SILENT",
        "mx.oak.example; spf=softfail smtp.mailfrom=example.org                                                  | SILENT",
        "mx.oak.example; arc=pass header.from=example.org; auth=pass smtp.auth=ada@example.org                   | SILENT",
        "mx.oak.example; dmarc=pass header.from=еxample.org                                                      | DENIED",
        "mx.oak.example; dmarc=pass header.from=[example.org]                                                    | SILENT"})
    void nothingElseIsTakenForItsWord(String field, Word word) {
        assertThat(word("example.org", field)).isEqualTo(word);
    }

    @Test
    void onlyTheTopmostFieldOfOurServerIsRead() {
        String good = US + "; dmarc=pass header.from=example.org";
        assertThat(word("example.org", US + "; dmarc=fail header.from=example.org", good)).isEqualTo(Word.DENIED);
        assertThat(word("example.org", US + "; none", good)).isEqualTo(Word.SILENT);
        assertThat(word("example.org", US + "; (not in the grammar", good)).isEqualTo(Word.SILENT);
        assertThat(word("example.org", "(whose? ", good)).as("whose it is cannot be told").isEqualTo(Word.SILENT);
        assertThat(word("example.org", "other.example; dmarc=fail header.from=example.org", good)).isEqualTo(Word.VOUCHED);
        assertThat(word("example.org")).isEqualTo(Word.SILENT);
    }

    @Test
    void aDomainInEitherFormIsOne() {
        assertThat(word("bücher.example", US + "; dmarc=pass header.from=xn--bcher-kva.example")).isEqualTo(Word.VOUCHED);
        assertThat(word("xn--bcher-kva.example", US + "; dmarc=pass header.from=BÜCHER.example")).isEqualTo(Word.VOUCHED);
        assertThat(word("bucher.example", US + "; dmarc=pass header.from=xn--bcher-kva.example")).isEqualTo(Word.DENIED);
    }

    /** Not a measure of speed: what goes back over what it has read, or down into what is nested, never ends here. */
    @Test
    void fieldsOfAnyLengthAreReadOnce() {
        for (String piece : List.of("(", "\"", "; a=", " a.b=c", ";", "\\", "()", "@", "a")) {
            Assertions.assertTimeout(Duration.ofSeconds(5), () -> assertThat(word("example.org", US + ";" + piece.repeat(99_000 / piece.length()))).isEqualTo(Word.SILENT));
        }
        assertThat(word("example.org", US + "; dmarc=pass " + "(".repeat(40_000) + ")".repeat(40_000) + " header.from=example.org")).isEqualTo(Word.VOUCHED);
        assertThat(word("example.org", US + "; dmarc=pass header.from=example.org (" + "x".repeat(200_000) + ")")).as("longer than any").isEqualTo(Word.SILENT);
    }

    @ParameterizedTest
    @CsvSource({"true,true,SILENT,CONFIRMED", "false,true,VOUCHED,CONFIRMED", "true,true,VOUCHED,CONFIRMED", "false,true,SILENT,DECLARED", "true,true,DENIED,DECLARED", "false,true,DENIED,DECLARED", "true,false,SILENT,DECLARED",
        "true,false,VOUCHED,DECLARED", "false,false,VOUCHED,DECLARED"})
    void aMarkOrTheServerMakesAnAddressSure(boolean marked, boolean theirs, Word server, MailTrust trust) {
        assertThat(MailTrust.of(marked, theirs, server)).isEqualTo(trust);
    }
}
