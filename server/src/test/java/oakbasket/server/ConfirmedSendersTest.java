package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.mail.internet.MimeMessage;
import java.time.Duration;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** A code by mail turns somebody who only said who they are into somebody who is known; the receipt goes to addresses that are known and to no other. */
class ConfirmedSendersTest {

    private static final Pattern CODE = Pattern.compile("\\b(\\d{6})\\b");

    private static final String OVER = "This code works no more";

    private final TestRound round = new TestRound().onlyPeople("Ada Brook " + System.nanoTime()).withOpenLink("").open();
    private final String name = round.board().path("rows").get(0).path("name").asString();
    private final String email = round.board().path("rows").get(0).path("email").asString();

    private TestRound.Sender claiming() {
        TestRound.Sender sender = round.openLink();
        sender.begin("Ada Brook", email);
        assertThat(sender.send(1, "consent.pdf", TestRound.pdf("consent " + System.nanoTime())).status()).isEqualTo(201);
        return sender;
    }

    private static Http.Answer mailCode(TestRound.Sender sender, String... headers) {
        return sender.http.post("/api/basket/submissions/code", "", join(headers, "Oak-Submission", sender.submission));
    }

    private static String[] join(String[] some, String... more) {
        return java.util.stream.Stream.concat(java.util.Arrays.stream(some), java.util.Arrays.stream(more)).toArray(String[]::new);
    }

    private static Http.Answer typeCode(TestRound.Sender sender, String code) {
        return sender.http.put("/api/basket/submissions/code", "{\"code\":\"" + code + "\"}", "Oak-Submission", sender.submission);
    }

    private static Http.Answer mailReceipt(TestRound.Sender sender) {
        return sender.http.post("/api/basket/submissions/receipt-mail", "", "Oak-Submission", sender.submission);
    }

    private String lastCode() {
        List<MimeMessage> mails = Outbox.to(email);
        Matcher code = CODE.matcher(Outbox.header(mails.get(mails.size() - 1), "Subject"));
        assertThat(code.find()).isTrue();
        assertThat(Outbox.header(mails.get(mails.size() - 1), "To")).as("no word that a stranger typed").doesNotContain("Ada Brook");
        assertThat(Outbox.text(mails.get(mails.size() - 1))).contains(code.group(1));
        return code.group(1);
    }

    private static String other(String code) {
        return (code.charAt(0) == '9' ? "0" : "9") + code.substring(1);
    }

    @Test
    void theRightCodeMakesTheSendingTheirsAndItCountsAtOnce() {
        TestRound.Sender ada = claiming();
        assertThat(round.standing(name, 0)).isEqualTo("WANTED");
        assertThat(round.panel(name).path("files").get(0).path("identity").asString()).isEqualTo("SELF_DECLARED");
        ada.finish();
        assertThat(mailReceipt(ada).problem()).as("nobody has the office write to a typed address").isEqualTo("no-address");
        assertThat(mailCode(ada).status()).isEqualTo(204);
        String code = lastCode();
        assertThat(typeCode(ada, code.substring(0, 3) + " " + code.substring(3)).status()).as("as people type it").isEqualTo(204);

        JsonNode panel = round.panel(name);
        JsonNode file = panel.path("files").get(0);
        assertThat(file.path("identity").asString()).isEqualTo("CONFIRMED");
        assertThat(file.path("claim").asString()).isEqualTo("ACCEPTED");
        assertThat(file.path("path").asString()).as("among her papers").startsWith(round.title() + "/" + name);
        assertThat(round.standing(name, 0)).isEqualTo("ARRIVED");
        assertThat(panel.path("story").toString()).contains("\"confirmed\"");
        assertThat(round.desk.get("/api/today").json().path("justIn").toString()).contains("\"person\":\"" + name + "\",\"identity\":\"CONFIRMED\"".replace("\"person\":", "\"person\":"));
        assertThat(mailCode(ada).problem()).isEqualTo("confirmed-already");

        Http.Answer mailed = mailReceipt(ada);
        assertThat(mailed.json().path("address").asString()).isEqualTo("a…@example.org");
        List<MimeMessage> mails = Outbox.to(email);
        String text = Outbox.text(mails.get(mails.size() - 1));
        assertThat(text).contains(ada.finish().json().path("code").asString(), file.path("sha256").asString(), "consent.pdf", "Fennbrook Catchment Partnership");
    }

    @Test
    void whoConfirmsFirstClaimsNothing() {
        TestRound.Sender ada = round.openLink();
        ada.begin("Ada Brook", email);
        assertThat(mailCode(ada).status()).isEqualTo(204);
        assertThat(typeCode(ada, lastCode()).status()).isEqualTo(204);
        assertThat(ada.send(1, "consent.pdf", TestRound.pdf("first")).status()).isEqualTo(201);
        assertThat(round.panel(name).path("files").get(0).path("claim").isNull()).isTrue();
        assertThat(round.standing(name, 0)).isEqualTo("ARRIVED");

        Http.Answer corrected = ada.http.put("/api/basket/submissions", "{\"name\":\"Mallory\",\"email\":\"mallory." + round.id + "@example.net\"}", "Oak-Link", ada.token, "Oak-Submission", ada.submission);
        assertThat(corrected.status()).isEqualTo(204);
        assertThat(round.standing(name, 0)).as("another address is not confirmed by the first one's code").isEqualTo("WANTED");
        assertThat(round.panel("Mallory").path("files").get(0).path("identity").asString()).isEqualTo("SELF_DECLARED");
    }

    @Test
    void aCodeIsGuessedFiveTimesAtMostWhicheverWay() throws Exception {
        TestRound.Sender mallory = claiming();
        mailCode(mallory);
        String code = lastCode();
        java.util.concurrent.ExecutorService pool = java.util.concurrent.Executors.newFixedThreadPool(10);
        List<java.util.concurrent.Future<String>> answers = new java.util.ArrayList<>();
        for (int n = 0; n < 30; n++) {
            answers.add(pool.submit(() -> typeCode(mallory, other(code)).at("code")));
        }
        int wrong = 0;
        for (java.util.concurrent.Future<String> answer : answers) {
            wrong += answer.get().startsWith("This is not the code") ? 1 : 0;
        }
        pool.shutdown();
        assertThat(wrong).as("many at once are no more than one after another").isLessThan(6);
        Http.Answer late = typeCode(mallory, code);
        assertThat(late.status()).as("even the right one").isEqualTo(422);
        assertThat(late.at("code")).startsWith(OVER);
        assertThat(round.standing(name, 0)).isEqualTo("WANTED");
        assertThat(mailCode(mallory).status()).isEqualTo(204);
        assertThat(typeCode(mallory, code).status()).as("an old code is none for a new one").isEqualTo(422);
        assertThat(typeCode(mallory, lastCode()).status()).isEqualTo(204);
    }

    @Test
    void aCodeLivesTenMinutesAndNoMailboxIsFilledByStrangers() {
        TestRound.Sender sender = claiming();
        mailCode(sender);
        String code = lastCode();
        java.time.Instant now = RunningApp.CLOCK.instant();
        RunningApp.CLOCK.set(now.plus(Duration.ofMinutes(10)).plusSeconds(1));
        try {
            assertThat(typeCode(sender, code).at("code")).startsWith(OVER);
        } finally {
            RunningApp.CLOCK.set(now.plusSeconds(60));
        }
        for (int n = 0; n < 4; n++) {
            assertThat(mailCode(sender, "X-Forwarded-For", "192.0.2." + n).status()).isEqualTo(204);
        }
        Http.Answer tooMany = mailCode(sender);
        assertThat(tooMany.status()).isEqualTo(429);
        assertThat(tooMany.header("Retry-After")).isNotEmpty();
        assertThat(Outbox.to(email)).hasSize(5);
    }

    @Test
    void nonsenseIsToldAtTheField() {
        TestRound.Sender sender = claiming();
        for (String typed : List.of("", "12345", "1234567", "abcdef", "１２３４５６")) {
            Http.Answer refused = typeCode(sender, typed);
            assertThat(refused.status()).as(typed).isEqualTo(422);
            assertThat(refused.at("code")).isEqualTo("Type the 6 digits from the mail.");
        }
        assertThat(typeCode(sender, "123456").at("code")).as("no code was mailed").startsWith(OVER);
        assertThat(new Http().put("/api/basket/submissions/code", "{\"code\":null}", "Oak-Submission", "none").status()).isEqualTo(404);
        TestRound.Sender known = round.personal(name).begin();
        assertThat(mailCode(known).problem()).isEqualTo("confirmed-already");
        known.send(1, "mine.pdf", TestRound.pdf("mine"));
        assertThat(mailReceipt(known).problem()).isEqualTo("no-receipt-yet");
        known.finish();
        assertThat(mailReceipt(known).json().path("address").asString()).isEqualTo("a…@example.org");
    }
}
