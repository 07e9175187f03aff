package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** Senders are spoken to in their language, with the page's data in its HTML; the desk stays English. */
class SenderLanguageTest {

    private static final Pattern DATA = Pattern.compile("<script type=\"application/json\" id=\"(begin|texts)\">(.*?)</script>");

    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({"pl, Ten link nie działa", "ar-EG, هذا الرابط لا يعمل", "'de,en;q=0.5', Dieser Link geht nicht", "sv, This link does not work"})
    void refusalsComeInTheLanguageOfTheBrowser(String language, String title) {
        Http.Answer refused = new Http().get("/api/basket", "Oak-Link", "never-was", "Accept-Language", language);
        assertThat(refused.json().path("title").asString()).isEqualTo(title);
        assertThat(refused.problem()).isEqualTo("link-unknown");
        assertThat(Http.desk().get("/api/rounds/999999/board", "Accept-Language", language).json().path("detail").asString()).as("the desk").matches("[ -~]+");
    }

    @Test
    void thePageComesWithItsDataAndTexts() {
        TestRound round = new TestRound();
        round.sheet.put("title", "Keys </script><script>alert(1)</script> & <!-- maps");
        round.open();
        Http.Answer page = new Http().get("/b/" + round.personal("Ada Brook").token, "Accept-Language", "ar");
        assertThat(page.text()).contains("<html lang=\"ar\" dir=\"rtl\">").doesNotContain("<script>alert");
        assertThat(data(page, "begin").path("page").path("title").asString()).isEqualTo(round.title());
        assertThat(data(page, "texts").path("send").asString()).isEqualTo("إرسال");
        assertThat(page.header("Cache-Control")).isEqualTo("no-store");
        assertThat(round.row("Ada Brook").path("progress").asString()).as("a program that looks at links is nobody who saw the page").isNotEqualTo("OPENED");
        assertThat(new Http().post("/api/basket/seen", "", "Oak-Link", round.personal("Ada Brook").token).status()).isEqualTo(204);
        assertThat(round.row("Ada Brook").path("progress").asString()).isEqualTo("OPENED");
    }

    @Test
    void theContactsLanguageComesFirst() {
        TestRound round = new TestRound().onlyPeople("Zofia Lis").open();
        long contact = round.row("Zofia Lis").path("contactId").asLong();
        JsonNode known = round.desk.get("/api/contacts/" + contact).json().path("contact");
        String form = "{\"version\":" + known.path("version") + ",\"name\":\"Zofia Lis\",\"email\":\"" + known.path("email").asString() + "\",\"language\":\"pl-PL\",\"groups\":[]}";
        assertThat(round.desk.put("/api/contacts/" + contact, form).status()).isEqualTo(200);
        assertThat(new Http().get("/b/" + round.personal("Zofia Lis").token, "Accept-Language", "fr").text()).contains("<html lang=\"pl\" dir=\"ltr\">");
    }

    @Test
    void anUnknownAndAWithdrawnLinkGiveTheSamePage() {
        TestRound round = new TestRound().open();
        TestRound.Sender ada = round.personal("Ada Brook");
        round.act("REMOVE", "Ada Brook", "\"on\":true");
        assertThat(new Http().get("/b/" + ada.token).text()).isEqualTo(new Http().get("/b/never-was").text()).contains("urn:oak-basket:problem:link-unknown");
    }

    @Test
    void aWordToTheOfficeGoesAlongAndIsSeen() {
        TestRound round = new TestRound().open();
        TestRound.Sender ada = round.personal("Ada Brook").begin();
        ada.send(1, "a.pdf", TestRound.pdf("x"));
        String tooLong = "{\"note\":\"" + "x".repeat(2001) + "\"}";
        assertThat(ada.http.post("/api/basket/submissions/finish", tooLong, "Oak-Submission", ada.submission).at("note")).contains("2,001");
        assertThat(ada.http.post("/api/basket/submissions/finish", "{\"note\":\" Page 2 follows by post. \"}", "Oak-Submission", ada.submission).status()).isEqualTo(200);
        ada.http.post("/api/basket/submissions/finish", "{\"note\":\"something else\"}", "Oak-Submission", ada.submission);
        assertThat(round.panel("Ada Brook").path("files").get(0).path("note").asString()).isEqualTo("Page 2 follows by post.");
        assertThat(round.desk.get("/api/rounds/" + round.id + "/to-check").text()).contains("Page 2 follows by post.");
    }

    /** Source of the hash: FIPS 180-4, computed by the JDK. Whoever asks learns yes or no, and the same no for every reason. */
    @Test
    void aReceiptProvesOneContentAndNothingElse() throws Exception {
        TestRound round = new TestRound().open();
        TestRound.Sender ada = round.personal("Ada Brook").begin();
        byte[] content = TestRound.pdf("proof");
        ada.send(1, "a.pdf", content);
        String code = ada.finish().json().path("code").asString();
        String sha256 = java.util.HexFormat.of().formatHex(java.security.MessageDigest.getInstance("SHA-256").digest(content));
        assertThat(check(code, sha256).json().toString()).isEqualTo("{\"received\":true}");
        assertThat(check(code.toLowerCase(java.util.Locale.ROOT).replace("-", " "), sha256).json().path("received").asBoolean()).isTrue();
        assertThat(check(code, sha256.replace(sha256.charAt(0), sha256.charAt(0) == 'a' ? 'b' : 'a')).text()).isEqualTo(check("0000-0000-0000", sha256).text()).isEqualTo("{\"received\":false}");
        assertThat(check(code + "X", sha256).at("code")).contains("twelve");
        assertThat(check(code, "abc").at("sha256")).contains("64");
        long file = round.panel("Ada Brook").path("files").get(0).path("id").asLong();
        round.desk.post("/api/removals/" + file, "{\"reason\":\"wrong person\"}");
        assertThat(check(code, sha256).json().path("received").asBoolean()).as("it was received, whatever became of it").isTrue();
    }

    private static Http.Answer check(String code, String sha256) {
        return new Http().post("/api/basket/receipt-check", "{\"code\":\"" + code + "\",\"sha256\":\"" + sha256 + "\"}");
    }

    private static JsonNode data(Http.Answer page, String id) {
        Matcher found = DATA.matcher(page.text());
        while (found.find()) {
            if (found.group(1).equals(id)) {
                return Http.JSON.readTree(found.group(2));
            }
        }
        throw new AssertionError("No " + id + " in " + page.text());
    }
}
