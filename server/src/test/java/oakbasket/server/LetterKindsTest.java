package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.mail.internet.MimeMessage;
import java.time.Instant;
import java.util.List;
import oakbasket.server.post.Postman;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.jdbc.core.simple.JdbcClient;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Receipts, thanks, and letters in the language of whoever reads them. */
class LetterKindsTest {

    private final Http desk = Http.desk();

    @BeforeEach
    @AfterEach
    void setTheClockBack() {
        RunningApp.CLOCK.set(Instant.parse("2026-06-01T09:00:00Z"));
    }

    @Test
    void whoSendsSomethingGetsTheReceiptAndWhoHasSentEverythingIsThanked() {
        TestRound round = new TestRound().onlyPeople("Ana Ribe").withLetters("{\"tellReceived\":true,\"thank\":true}").item("Map", true, 1, 2, 1, "PDF").open();
        TestRound.Sender sender = round.personal("Ana Ribe").begin();
        sender.send(1, "consent signed.pdf", TestRound.pdf("a"));
        String code = sender.finish().json().path("code").asString();
        sender.finish();
        later(2);
        List<MimeMessage> mails = Outbox.to("Ana Ribe");
        assertThat(mails).as("one, however often the receipt is asked for").hasSize(1);
        assertThat(Outbox.subject(mails.get(0))).isEqualTo("Received: " + round.title());
        assertThat(Outbox.text(mails.get(0))).contains("Still missing: Map", "Receipt " + code + ", received Monday 1 June 2026, 10:00", "  - consent signed.pdf (Consent)", "/b/");
        TestRound.Sender again = round.personal("Ana Ribe").begin();
        again.send(2, "map.pdf", TestRound.pdf("b"));
        again.finish();
        later(4);
        assertThat(Outbox.subject(Outbox.to("Ana Ribe").get(1))).isEqualTo("Everything has come: " + round.title());
        assertThat(Outbox.text(Outbox.to("Ana Ribe").get(1))).contains("map.pdf (Map)").doesNotContain("Still missing");
        TestRound.Sender third = round.personal("Ana Ribe").begin();
        third.send(2, "map better.pdf", TestRound.pdf("c"));
        third.finish();
        later(6);
        assertThat(Outbox.subject(Outbox.to("Ana Ribe").get(2))).as("thanked once").startsWith("Received: ");
    }

    @Test
    void nobodyIsThankedForWhatWasReturnedInTheMeantime() {
        TestRound round = new TestRound().onlyPeople("Bo Tarn").withLetters("{\"thank\":true}").open();
        TestRound.Sender sender = round.personal("Bo Tarn").begin();
        sender.send(1, "c.pdf", TestRound.pdf("bo"));
        sender.finish();
        desk.post("/api/files/" + round.panel("Bo Tarn").path("files").get(0).path("id").asLong() + "/review", "{\"from\":\"NONE\",\"to\":\"RETURNED\",\"reason\":\"blurred\"}");
        later(2);
        assertThat(Outbox.to("Bo Tarn")).isEmpty();
        assertThat(letter(round, "Bo Tarn").path("trouble").asString()).isEqualTo("NOT_COMPLETE");
    }

    /** An address that was only typed is nobody's yet: else any stranger could have the office write to anybody. */
    @Test
    void whoOnlySaysWhoTheyAreGetsNoLetter() {
        TestRound round = new TestRound().onlyPeople("Cy Wold").withOpenLink("").withLetters("{\"tellReceived\":true,\"thank\":true}").open();
        TestRound.Sender stranger = round.openLink();
        stranger.begin("Cy Wold", round.row("Cy Wold").path("email").asString());
        stranger.send(1, "c.pdf", TestRound.pdf("cy"));
        stranger.finish();
        later(2);
        assertThat(Outbox.to("Cy Wold")).isEmpty();
    }

    /** Dates by CLDR, by the Java that runs; words of the message files. */
    @ParameterizedTest
    @CsvSource(delimiter = '|', value = {
        "de | Unterlagen, die wir von Ihnen brauchen | Frist: Dienstag, 30. Juni 2026, 17:00 (Britische Sommerzeit) | ltr",
        "fr | les documents dont nous avons besoin   | À envoyer avant le mardi 30 juin 2026, 17:00 | ltr",
        "es | documentos que necesitamos de usted    | Plazo: martes, 30 de junio de 2026, 17:00 | ltr",
        "pl | dokumenty, których potrzebujemy        | Termin: wtorek, 30 czerwca 2026, 17:00    | ltr",
        "ar | مستندات نحتاجها منك                     | الموعد: الثلاثاء، 30 يونيو 2026، 17:00     | rtl"})
    void peopleAreWrittenToInTheirLanguage(String language, String subject, String due, String direction) throws Exception {
        TestRound round = new TestRound().onlyPeople("Lena " + language.toUpperCase() + " Kop").withLetters("{\"invite\":true}").open();
        String name = "Lena " + language.toUpperCase() + " Kop";
        JsonNode contact = desk.get("/api/contacts/" + round.row(name).path("contactId")).json().path("contact");
        desk.put("/api/contacts/" + contact.path("id"), ((ObjectNode) contact.deepCopy()).put("language", language).toString());
        later(2);
        MimeMessage mail = Outbox.to(name).get(0);
        assertThat(Outbox.subject(mail)).contains(subject);
        assertThat(Outbox.text(mail)).contains(due, name);
        assertThat(Outbox.header(mail, "Content-Language")).isEqualTo(language);
        assertThat((String) Outbox.part(mail, "text/html").getContent()).contains("<html lang=\"" + language + "\" dir=\"" + direction + "\">");
        assertThat(desk.get("/api/letters/" + letter(round, name).path("id").asLong()).json().path("language").asString()).isEqualTo(language);
    }

    @Test
    void theOfficeHasItsOwnWordsInEachLanguageAndLooksAtThemForARealPerson() {
        TestRound round = new TestRound().onlyPeople("Dot Sike").open();
        long contact = round.row("Dot Sike").path("contactId").asLong();
        String text = "{\"subject\":\"Przypomnienie {round}\",\"body\":\"{name}: {papers}\",\"version\":0}";
        try {
            assertThat(desk.put("/api/letter-texts/REMINDER?language=pl", text).status()).isEqualTo(200);
            assertThat(kept("pl")).isEqualTo("Przypomnienie {round}");
            assertThat(kept("en")).isEqualTo("Still missing: {round}");
            JsonNode look = desk.post("/api/letter-texts/example", text.replace("\"version\":0", "\"kind\":\"REMINDER\",\"language\":\"pl\",\"contactId\":" + contact)).json();
            assertThat(look.path("subject").asString()).isEqualTo("Przypomnienie " + round.title());
            assertThat(look.path("body").asString()).contains("Dot Sike: " + round.title(), "Termin: wtorek, 30 czerwca 2026", "https://…/b/…");
            assertThat(desk.put("/api/letter-texts/REMINDER?language=tlh", text).status()).isEqualTo(422);
            assertThat(desk.post("/api/letter-texts/example", text.replace("{name}", "{nmae}")).json().path("errors").get(0).path("field").asString()).isEqualTo("body");
            assertThat(desk.post("/api/letter-texts/example", "{\"subject\":\"s\",\"body\":\"" + "x".repeat(60_000) + "{papers}\"}").json().path("errors").get(0).path("field").asString()).isEqualTo("body");
            assertThat(desk.post("/api/letter-texts/example", "{\"subject\":\"s\",\"body\":\"" + "x".repeat(1_000_000) + "\"}").status()).isEqualTo(413);
        } finally {
            desk.send("DELETE", "/api/letter-texts/REMINDER?language=pl", null);
        }
    }

    /** An unclosed brace is text as it stands: nothing is filled in for it, and the sender sees it when they look. */
    @Test
    void anUnclosedBraceIsTextAndEveryKindIsShownInEveryLanguage() {
        assertThat(desk.post("/api/letter-texts/example", "{\"subject\":\"s\",\"body\":\"{name {papers}\"}").json().path("body").asString()).startsWith("{name ");
        for (String language : List.of("en", "es", "fr", "de", "pl", "ar")) {
            for (JsonNode kept : desk.get("/api/letter-texts?language=" + language).json()) {
                ObjectNode typed = Http.JSON.createObjectNode().put("subject", kept.path("subject").asString()).put("body", kept.path("body").asString()).put("kind", kept.path("kind").asString()).put("language", language);
                JsonNode look = desk.post("/api/letter-texts/example", typed.toString()).json();
                assertThat(look.path("body").asString()).as("%s %s", language, kept.path("kind")).isNotEmpty().doesNotContain("{", "??").doesNotContainPattern("letter\\.[A-Za-z]");
            }
        }
    }

    @Test
    void lettersAreHandedOverNoFasterThanTheOfficeSays() {
        JsonNode before = desk.get("/api/letter-settings").json();
        TestRound round = new TestRound().onlyPeople("Eve A", "Eve B", "Eve C", "Eve D", "Eve E").withLetters("{\"invite\":true}").open();
        try {
            later(1);
            desk.put("/api/letter-settings", ((ObjectNode) before.deepCopy()).put("perMinute", 1).toString());
            RunningApp.bean(Postman.class).deliver();
            RunningApp.CLOCK.set(Instant.parse("2026-06-01T09:05:00Z"));
            RunningApp.bean(Postman.class).deliver();
            RunningApp.bean(Postman.class).deliver();
            assertThat(sent(round)).as("at most one in this minute of the machine, and the next one").isLessThanOrEqualTo(2);
        } finally {
            desk.put("/api/letter-settings", ((ObjectNode) before.deepCopy()).put("version", desk.get("/api/letter-settings").json().path("version").asInt()).toString());
        }
        RunningApp.bean(Postman.class).deliver();
        assertThat(sent(round)).isEqualTo(5);
    }

    @Test
    void theLetterSaysThatItsLinkWasOpened() {
        TestRound round = new TestRound().onlyPeople("Fay Lund").withLetters("{\"invite\":true}").open();
        later(2);
        assertThat(letter(round, "Fay Lund").path("openedAt").isNull()).isTrue();
        RunningApp.CLOCK.set(Instant.parse("2026-06-01T12:00:00Z"));
        round.personal("Fay Lund").seen();
        assertThat(letter(round, "Fay Lund").path("openedAt").asString()).startsWith("2026-06-01T12:00:00");
    }

    private static int sent(TestRound round) {
        return RunningApp.bean(JdbcClient.class).sql("SELECT COUNT(*) FROM letter WHERE state = 'SENT' AND id IN (SELECT letter_id FROM letter_basket WHERE round_id = :round)").param("round", round.id)
                .query(Integer.class).single();
    }

    private String kept(String language) {
        for (JsonNode one : desk.get("/api/letter-texts?language=" + language).json()) {
            if (one.path("kind").asString().equals("REMINDER")) {
                return one.path("subject").asString();
            }
        }
        return "";
    }

    private JsonNode letter(TestRound round, String name) {
        return desk.get("/api/baskets/" + round.row(name).path("id").asLong() + "/letters").json().path("letters").get(0);
    }

    private static void later(int minutes) {
        RunningApp.CLOCK.set(Instant.parse("2026-06-01T09:00:00Z").plusSeconds(60L * minutes));
        RunningApp.bean(Postman.class).deliver();
    }
}
