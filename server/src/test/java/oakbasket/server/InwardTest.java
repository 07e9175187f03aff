package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.lang.reflect.Method;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.Base64;
import java.util.List;
import java.util.stream.Stream;
import java.util.stream.StreamSupport;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.server.account.AccountService;
import oakbasket.server.inward.Collecting;
import oakbasket.server.post.Postman;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.boot.web.server.servlet.context.ServletWebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.mail.javamail.JavaMailSenderImpl;
import tools.jackson.databind.JsonNode;

/** Papers, answers and reports that come by mail, over real SMTP and IMAP: the pretend post office is GreenMail. */
class InwardTest {

    private static final Path DATA = RunningApp.freshFolder();
    private static @Nullable ConfigurableApplicationContext app;
    private static int mails;
    private Http desk;
    private TestRound round;

    @BeforeEach
    void start() {
        RunningApp.CLOCK.set(Instant.parse("2026-06-01T09:00:00Z"));
        if (app == null) {
            app = RunningApp.startOn(DATA, "--oakbasket.post-office=true", "--oakbasket.mail-from=office@oak.example.org", "--oakbasket.collecting-address=papers@oak.example.org",
                    "--oakbasket.public-address=http://oak.example.org/", "--oakbasket.inward-every=P1D", "--oakbasket.inward-first=P1D");
            app.getBean(AccountService.class).make(new Person("Robin Fenn", MailAddress.parse(RunningApp.EMAIL)), RunningApp.PASSWORD);
        }
        desk = new Http("http://localhost:" + ((ServletWebServerApplicationContext) app).getWebServer().getPort());
        desk.get("/api/session");
        desk.post("/api/session", "{\"email\":\"" + RunningApp.EMAIL + "\",\"password\":\"" + RunningApp.PASSWORD + "\"}");
        round = new TestRound(desk).onlyPeople("Iris Fell", "Olm Reed").withLetters("{\"invite\":true,\"thank\":true}").item("Field map", true, 1, 2, 1, "PDF", "IMAGE");
    }

    @AfterAll
    static void stop() {
        app.close();
        app = null;
    }

    @Test
    void aPaperSentInAnswerToALetterIsFiledOnceAndAnswered() {
        round.open();
        JsonNode letter = invited("Iris Fell");
        Http.Answer answered = desk.send("POST", "/api/post-office/letters/" + letter.path("id").asLong() + "/answer?name=signed%20consent.pdf&text=Here%20it%20is%0A%3E%20quoted", TestRound.pdf("by mail"),
                "Content-Type", "application/octet-stream");
        assertThat(answered.status()).as(answered.text()).isEqualTo(204);
        JsonNode file = round.panel("Iris Fell").path("files").get(0);
        assertThat(file.path("identity").asString()).as("the mark and the address together").isEqualTo("CONFIRMED");
        assertThat(DATA.resolve("files").resolve(round.title()).resolve("Iris Fell/Iris Fell - Consent.pdf")).hasBinaryContent(TestRound.pdf("by mail"));
        JsonNode message = first();
        assertThat(message.path("kind").asString()).isEqualTo("PAPERS");
        assertThat(message.path("text").asString()).isEqualTo("Here it is");
        assertThat(message.path("parts").get(0).path("item").asString()).isEqualTo("Consent");
        deliver();
        JsonNode receipt = newestTo(address("Iris Fell"));
        assertThat(receipt.path("subject").asString()).startsWith("Received: Re: ");
        assertThat(receipt.path("text").asString()).contains("signed consent.pdf: received for “Consent”", "Receipt ", "Still missing: Field map");
        int got = letters(address("Iris Fell")).size();
        app.getBean(JdbcClient.class).sql("UPDATE inward_message SET state = 'TAKEN', same_as = NULL WHERE id = :id").param("id", message.path("id").asLong()).update();
        look();
        deliver();
        assertThat(round.panel("Iris Fell").path("files")).as("dealt with again after a crash at the worst moment").hasSize(1);
        assertThat(first().path("parts")).hasSize(1);
        assertThat(letters(address("Iris Fell")).size()).as("the answer was not settled yet, so it goes").isEqualTo(got + 1);
    }

    /** A sender's address alone proves nothing; a mark in somebody else's hands neither. */
    @ParameterizedTest(name = "marked {0}, from {1}: {2}")
    @CsvSource({"address,own,CONFIRMED", "subject,own,CONFIRMED", "none,own,TRAY", "address,other,TRAY", "subject,stranger,TRAY", "none,stranger,TRAY", "forged,own,TRAY"})
    void onlyWhoIsSureFilesByMail(String mark, String from, String becomes) {
        round.open();
        long basket = round.row("Iris Fell").path("id").asLong();
        JsonNode way = desk.get("/api/baskets/" + basket + "/mail-way").json();
        String forged = way.path("address").asString().replaceAll("-[0-9a-f]", "-z").replace("-z", way.path("address").asString().contains("-0") ? "-1" : "-0");
        String to = mark.equals("address") ? way.path("address").asString() : mark.equals("forged") ? forged : "papers@oak.example.org";
        String sender = from.equals("own") ? address("Iris Fell") : from.equals("other") ? address("Olm Reed") : "stranger." + mark + "@example.org";
        mail(sender, to, "Subject: My consent " + (mark.equals("subject") ? way.path("code").asString().toLowerCase() : "") + "\r\n", "consent.pdf", TestRound.pdf(mark + from));
        JsonNode message = first();
        assertThat(message.path("parts").get(0).path("outcome").asString()).isEqualTo(becomes.equals("TRAY") ? "TRAY" : "FILED");
        assertThat(round.panel("Iris Fell").path("files")).hasSize(becomes.equals("TRAY") ? 0 : 1);
        if (becomes.equals("TRAY")) {
            assertThat(trayNames()).contains("consent.pdf");
            deliver();
            String text = newestTo(sender).path("text").asString();
            assertThat(text).contains("somebody at the office will look").as("says nothing about the basket").doesNotContain("Field map", "Receipt");
        }
    }

    /** What a message has beside its papers completes nothing and is thanked for by nobody: RFC 8551, 3156, 8098, 5546, 6350, 2392, MS-OXTNEF. */
    @ParameterizedTest(name = "{0}")
    @CsvSource(delimiter = '|', value = {
        "smime.p7s    | Content-Type: application/pkcs7-signature; name=smime.p7s",
        "consent.asc  | Content-Type: application/pgp-signature; name=consent.asc",
        "consent      | Content-Type: message/disposition-notification; name=consent",
        "consent.ics  | Content-Type: text/calendar; method=REPLY; name=consent.ics",
        "consent.vcf  | Content-Type: text/vcard; name=consent.vcf",
        "winmail.dat  | Content-Type: application/ms-tnef; name=winmail.dat",
        "consent.png  | Content-Type: image/png; name=consent.png~Content-ID: <pic@oak>~Content-Disposition: inline; filename=consent.png"})
    void whatIsNoPaperCompletesNothing(String name, String header) {
        round.open();
        String way = way("Iris Fell");
        byte[] content = name.equals("winmail.dat") ? new byte[] {0x78, (byte) 0x9f, 0x3e, 0x22, 0, 0} : "x".repeat(90_000).getBytes(StandardCharsets.UTF_8);
        int got = letters(address("Iris Fell")).size();
        raw(address("Iris Fell"), "From: " + address("Iris Fell") + "\r\nTo: " + way + "\r\nSubject: Re: consent\r\nMIME-Version: 1.0\r\nContent-Type: multipart/mixed; boundary=p\r\n\r\n--p\r\nContent-Type: text/html\r\n\r\n"
                + "<p>I will send the consent tomorrow <img src=\"cid:pic@oak\"></p>\r\n--p\r\n" + header.replace("~", "\r\n") + "\r\nContent-Transfer-Encoding: base64\r\n\r\n" + Base64.getMimeEncoder().encodeToString(content)
                + "\r\n--p--\r\n");
        assertThat(first().path("kind").asString()).isEqualTo("ANSWER");
        assertThat(first().path("text").asString()).isEqualTo("I will send the consent tomorrow");
        for (JsonNode part : first().path("parts")) {
            assertThat(part.path("outcome").asString()).isEqualTo("LEFT_OUT");
            assertThat(part.path("why").asString()).contains("stays in the message");
        }
        assertThat(round.panel("Iris Fell").path("files")).isEmpty();
        assertThat(trayNames()).doesNotContain(name);
        deliver();
        assertThat(letters(address("Iris Fell"))).as("nobody is thanked for it").hasSize(got);
    }

    @Test
    void aLogoUnderEachMessageIsNoPaperAndIsKnownBySeveral() {
        round.open();
        byte[] logo = ("logo " + mails).getBytes(StandardCharsets.UTF_8);
        for (int i = 0; i < 2; i++) {
            raw(address("Iris Fell"), message(address("Iris Fell"), way("Iris Fell"), "Subject: words " + i + "\r\n", "image001.png", logo).replace("Content-Type: application/octet-stream", "Content-Type: image/png"));
            assertThat(first().path("parts").get(0).path("outcome").asString()).isEqualTo(i == 0 ? "TRAY" : "LEFT_OUT");
        }
        assertThat(round.panel("Iris Fell").path("files")).isEmpty();
    }

    @Test
    void whatFitsTwoItemsAlikeWaitsWithBothAndTheAnswerSaysSo() {
        round.item("Payslip 1", true, 1, 2, 1, "PDF").item("Payslip 2", true, 1, 1, 1, "PDF").open();
        mail(address("Iris Fell"), way("Iris Fell"), "Subject: which\r\n", "payslip.pdf", TestRound.pdf("which?"));
        JsonNode part = first().path("parts").get(0);
        assertThat(part.path("outcome").asString()).isEqualTo("TRAY");
        assertThat(part.path("why").asString()).isEqualTo("It is not clear for which item it is: Payslip 1, Payslip 2.");
        deliver();
        assertThat(newestTo(address("Iris Fell")).path("text").asString()).contains("payslip.pdf: received; it may be for Payslip 1, Payslip 2").doesNotContain("Everything");
        mail(address("Iris Fell"), way("Iris Fell"), "Subject: that one\r\n", "Payslip 2.pdf", TestRound.pdf("two"));
        assertThat(first().path("parts").get(0).path("item").asString()).isEqualTo("Payslip 2");
        mail(address("Iris Fell"), way("Iris Fell"), "Subject: once more\r\n", "Payslip 2 again.pdf", TestRound.pdf("two again"));
        assertThat(first().path("parts").get(0).path("why").asString()).as("it goes under no other item because that one is full").isEqualTo("It seems to be “Payslip 2”, which takes no more files of this person.");
        JsonNode waits = desk.get("/api/tray").json().path("entries").valueStream().filter(entry -> entry.path("files").path(0).path("name").asString().equals("payslip.pdf")).reduce((a, b) -> b).orElseThrow();
        assertThat(waits.path("suggestion").path("itemId").isNull()).as("a tie suggests nothing").isTrue();
        assertThat(waits.path("suggestion").toString()).contains("Payslip 1, Payslip 2");
        mail(address("Iris Fell"), way("Iris Fell"), "Subject: unnamed\r\n", "scan0001.pdf", TestRound.pdf("unnamed"));
        assertThat(first().path("parts").get(0).path("outcome").asString()).as("a kind alone decides nothing").isEqualTo("TRAY");
    }

    /** Whoever may read messages may not for that send as somebody else: what a reply quotes of links and marks is not kept, in plain text or HTML, however it was quoted or broken. */
    @Test
    void noLinkAndNoMarkIsKeptOfWhatAReplyQuotes() {
        round.open();
        String link = invited("Iris Fell").path("text").asString().lines().filter(line -> line.contains("/b/")).findFirst().orElseThrow().strip();
        String token = link.substring(link.lastIndexOf('/') + 1);
        String way = way("Iris Fell");
        String code = desk.get("/api/baskets/" + round.row("Iris Fell").path("id").asLong() + "/mail-way").json().path("code").asString();
        String broken = link.substring(0, link.length() - 10) + "\r\n" + link.substring(link.length() - 10);
        for (String quoted : List.of("I wrote:\r\n" + link, "Von: Amt\r\n" + link + " und " + way, "see " + broken, "<" + link + ">", "my code is " + code)) {
            raw(address("Iris Fell"), "From: " + address("Iris Fell") + "\r\nTo: " + way + "\r\nSubject: Re: " + code + "\r\nDate: Mon, 1 Jun 2026 09:00:" + "%02d".formatted(++mails % 60) + " +0000\r\n\r\n" + quoted + "\r\n");
            String shown = desk.get("/api/inward?all=true").json().path("messages").get(0).toString();
            assertThat(shown).as(quoted).doesNotContain(token, token.substring(0, token.length() - 10), code, way.substring(way.indexOf('+'), way.indexOf('@')));
        }
        mail(address("Iris Fell"), way, "Subject: with a paper\r\n", "signed consent.pdf", TestRound.pdf("noted"));
        raw(address("Iris Fell"), message(address("Iris Fell"), way, "Subject: with a paper and the link\r\n", "signed consent too.pdf", TestRound.pdf("noted too")).replace("Here.", "Here. " + link + " " + code));
        assertThat(round.panel("Iris Fell").toString()).as("nor in the note of the sending").contains("signed consent").doesNotContain(token, code);
        assertThat(first().path("basketId").asLong()).as("it was still known whose it is").isEqualTo(round.row("Iris Fell").path("id").asLong());
    }

    /** A mark in other hands: whoever has it learns nothing of the person it was made for, neither their name nor their language. */
    @Test
    void aMarkFromAnotherAddressIsAnsweredWithoutNamingAnybody() {
        round.open();
        String stranger = "not.iris." + mails + "@example.org";
        mail(stranger, way("Iris Fell"), "Subject: mine\r\n", "consent.pdf", TestRound.pdf("forged"));
        deliver();
        assertThat(newestTo(stranger).path("text").asString()).startsWith("Dear Somebody").doesNotContain("Iris", "Fell", "Field map", "Receipt");
    }

    /** More than one author, none, or a group: whoever it is, a person looks (RFC 5322, 3.6.2 and 3.4). */
    @ParameterizedTest(name = "{0}")
    @ValueSource(strings = {"From: %s\r\nFrom: evil@example.net", "From: evil@example.net\r\nFrom: %s", "From: %s, evil@example.net", "From: Us: %s;", "From: \"%s\" <evil@example.net>", "From:"})
    void onlyOneAuthorIsEverSure(String from) {
        round.open();
        String message = message("x", way("Iris Fell"), "Subject: authors\r\n", "consent.pdf", TestRound.pdf(from)).replace("From: Somebody <x>", from.formatted(address("Iris Fell")));
        raw(address("Iris Fell"), message);
        assertThat(desk.get("/api/inward?all=true").json().path("messages").get(0).path("confirmed").asBoolean()).isFalse();
        assertThat(round.panel("Iris Fell").path("files")).isEmpty();
    }

    @Test
    void whatAColleaguePassesOnWaitsWithItsOwnSenderAndIsAnsweredToNobody() {
        round.open();
        String inner = message(address("Iris Fell"), "robin@example.org", "Subject: my papers\r\n", "consent.pdf", TestRound.pdf("passed on"));
        String outer = "From: Robin Fenn <" + RunningApp.EMAIL + ">\r\nTo: papers@oak.example.org\r\nSubject: Fwd: my papers\r\nMIME-Version: 1.0\r\nContent-Type: multipart/mixed; boundary=o\r\n\r\n--o\r\nContent-Type: text/plain\r\n\r\n"
                + "see below\r\n--o\r\nContent-Type: message/rfc822\r\n\r\n" + inner + "\r\n--o--\r\n";
        int got = letters(RunningApp.EMAIL).size();
        raw(RunningApp.EMAIL, outer);
        JsonNode message = first();
        assertThat(message.path("kind").asString()).isEqualTo("PAPERS");
        assertThat(message.path("name").asString()).as("supposed to be of").isEqualTo("Iris Fell");
        assertThat(message.path("parts").get(0).path("outcome").asString()).isEqualTo("TRAY");
        assertThat(message.path("parts").get(0).path("why").asString()).contains(address("Iris Fell"));
        raw("office@oak.example.org", outer.replace(RunningApp.EMAIL, "office@oak.example.org").replace("passed on", "passed over"));
        assertThat(first().path("kind").asString()).as("the office's own address is no loop").isEqualTo("PAPERS");
        raw("office@oak.example.org", outer.replace("Robin Fenn <" + RunningApp.EMAIL, "Office <office@oak.example.org").replace("Subject: Fwd", "Message-ID: <oak-letter-1-2@oak.example.org>\r\nSubject: Fwd"));
        assertThat(desk.get("/api/inward?all=true").json().path("messages").get(0).path("kind").asString()).as("our own letter come back is one").isEqualTo("LOOP");
        deliver();
        assertThat(letters(RunningApp.EMAIL)).hasSize(got);
        assertThat(round.panel("Iris Fell").path("files")).isEmpty();
    }

    /** What can be read is read, the rest is named, and somebody is answered. */
    @ParameterizedTest(name = "{0}")
    @CsvSource({"many, attachments", "deep, one another", "line, damaged", "headers, damaged"})
    void whatIsBeyondTheBoundsIsReadAsFarAsItGoes(String how, String said) {
        round.open();
        String head = "From: Iris <" + address("Iris Fell") + ">\r\nTo: " + way("Iris Fell") + "\r\nSubject: beyond " + how + "\r\nMIME-Version: 1.0\r\n";
        String part = "Content-Type: application/pdf; name=\"signed consent.pdf\"\r\nContent-Transfer-Encoding: base64\r\n\r\n" + Base64.getMimeEncoder().encodeToString(TestRound.pdf(how)) + "\r\n";
        StringBuilder deep = new StringBuilder();
        for (int i = 0; i < 30; i++) {
            deep.append("--b").append(i).append("\r\nContent-Type: multipart/mixed; boundary=b").append(i + 1).append("\r\n\r\n");
        }
        String body = switch (how) {
            case "many" -> "Content-Type: multipart/mixed; boundary=p\r\n\r\n--p\r\n" + part + "--p\r\nContent-Disposition: attachment; filename=a.txt\r\n\r\nx\r\n".repeat(150) + "--p--\r\n";
            case "deep" -> "Content-Type: multipart/mixed; boundary=b0\r\n\r\n--b0\r\n" + part + deep;
            case "line" -> "Content-Type: multipart/mixed; boundary=p\r\n\r\n--p\r\n" + part + "--p\r\nX-Long: " + "y".repeat(300_000) + "\r\n\r\nx\r\n--p--\r\n";
            default -> "X-Many: 1\r\n".repeat(3_000) + "Content-Type: text/plain\r\n\r\nhi\r\n";
        };
        raw(address("Iris Fell"), head + body);
        JsonNode message = first();
        assertThat(message.path("subject").asString()).isEqualTo("beyond " + how);
        assertThat(message.path("fromAddress").asString()).isEqualTo(address("Iris Fell"));
        assertThat(round.panel("Iris Fell").path("files")).hasSize(how.equals("headers") ? 0 : 1);
        deliver();
        assertThat(newestTo(address("Iris Fell")).path("text").asString()).contains("The rest of your message: could not be taken.", said);
    }

    /** What the server cannot do just then is no fault of the message: nothing is refused, nobody is told that it was damaged, and it is dealt with the next time. */
    @Test
    void whatCannotBeDealtWithJustNowIsTriedAgain() throws Exception {
        round.open();
        Path decoding = DATA.resolve("decoding");
        Path away = DATA.resolve("decoding-away");
        java.lang.reflect.Field idle = Class.forName("oakbasket.server.decode.Decoders").getDeclaredField("idle");
        idle.setAccessible(true);
        ((java.util.Deque<?>) idle.get(app.getBean(oakbasket.server.decode.Decoders.class))).clear();
        Files.move(decoding, away);
        try {
            raw(address("Iris Fell"), message(address("Iris Fell"), way("Iris Fell"), "Subject: in bad hours\r\n", "signed consent.pdf", TestRound.pdf("bad hours")).replace("Content-Type: text/plain", "Content-Type: text/html"));
            assertThat(app.getBean(JdbcClient.class).sql("SELECT COUNT(*) FROM inward_message WHERE state = 'TAKEN'").query(Integer.class).single()).as("it waits").isEqualTo(1);
            assertThat(round.panel("Iris Fell").path("files")).isEmpty();
        } finally {
            Files.move(away, decoding);
        }
        look();
        assertThat(first().path("subject").asString()).isEqualTo("in bad hours");
        assertThat(first().path("kind").asString()).isEqualTo("PAPERS");
        assertThat(round.panel("Iris Fell").path("files")).hasSize(1);
    }

    /** A second author behind what breaks the header is an author, too: whoever reads only as far as it goes must not be sure. */
    @Test
    void aBrokenHeaderIsNeverSure() {
        round.open();
        String body = "\r\nMIME-Version: 1.0\r\nContent-Type: application/pdf; name=\"signed consent.pdf\"\r\n\r\n%PDF-1.4\r\n%%EOF\r\n";
        for (String middle : List.of("X-Long: " + "y".repeat(200_000), "X: " + "z".repeat(99_000) + "\r\n\t" + "z".repeat(99_000))) {
            raw(address("Iris Fell"), "From: " + address("Iris Fell") + "\r\nTo: " + way("Iris Fell") + "\r\nSubject: broken\r\n" + middle + "\r\nFrom: evil@example.net" + body);
            assertThat(first().path("confirmed").asBoolean()).isFalse();
        }
        raw(address("Iris Fell"), "X-Long: " + "y".repeat(200_000) + "\r\nFrom: " + address("Iris Fell") + "\r\nTo: " + way("Iris Fell") + "\r\nSubject: behind it\r\nFrom: evil@example.net" + body);
        assertThat(first().path("fromAddress").asString()).as("still told").isEqualTo(address("Iris Fell"));
        assertThat(first().path("confirmed").asBoolean()).isFalse();
        assertThat(round.panel("Iris Fell").path("files")).isEmpty();
    }

    /** With forty documents of one kind a scan fits them all: it waits, and what is said of it stays short. */
    @Test
    void aNameThatFitsHalfTheChecklistIsNotExplainedWithAllOfIt() {
        for (int n = 0; n < 40; n++) {
            round.item("Document " + "x".repeat(60) + " " + (char) ('a' + n % 26) + n, false, 1, 2, 1, "PDF");
        }
        round.open();
        mail(address("Iris Fell"), way("Iris Fell"), "Subject: a scan\r\n", "scan0001.pdf", TestRound.pdf("forty"));
        assertThat(first().path("parts").get(0).path("outcome").asString()).isEqualTo("TRAY");
        assertThat(first().path("parts").get(0).path("why").asString()).isEqualTo("It is not clear for which item it is.");
        deliver();
        assertThat(newestTo(address("Iris Fell")).path("text").asString()).contains("scan0001.pdf: received; somebody at the office will look");
    }

    @Test
    void whoSendsVeryMuchIsAnsweredInOneAndNotInSilence() {
        round.open();
        for (int i = 0; i < 33; i++) {
            mail(address("Olm Reed"), way("Olm Reed"), "Subject: number " + i + "\r\n", "page " + i + ".pdf", TestRound.pdf("olm" + i));
        }
        deliver();
        assertThat(first().path("answerState").asString()).isEqualTo("GATHERED");
        RunningApp.CLOCK.set(Instant.parse("2026-06-01T22:00:00Z"));
        gather();
        deliver();
        assertThat(letters(address("Olm Reed")).stream().map(letter -> letter.path("subject").asString()).filter(subject -> subject.startsWith("Received:"))).as("thirty, and one for three").hasSize(31);
        assertThat(newestTo(address("Olm Reed")).path("text").asString()).contains("the last 3 of them", "“number 30”", "page 32.pdf: received");
    }

    @Test
    void anUnknownAddressIsAnsweredOnceADayAndNothingIsLost() {
        String stranger = "nobody.knows." + mails + "@example.org";
        for (int i = 0; i < 3; i++) {
            mail(stranger, "papers@oak.example.org", "Subject: Hello " + i + "\r\n", "paper" + i + ".pdf", TestRound.pdf("x" + i));
        }
        deliver();
        assertThat(letters(stranger)).hasSize(1);
        assertThat(trayNames()).contains("paper0.pdf", "paper1.pdf", "paper2.pdf");
    }

    @Test
    void whatTheItemRefusesIsRefusedPolitelyAndWhatIsUnclearWaits() {
        round.open();
        String way = desk.get("/api/baskets/" + round.row("Iris Fell").path("id").asLong() + "/mail-way").json().path("address").asString();
        mail(address("Iris Fell"), way, "Subject: all of it\r\n", "consent.pdf", "MZ not a pdf".getBytes(StandardCharsets.UTF_8));
        assertThat(first().path("parts").get(0).path("outcome").asString()).isEqualTo("REFUSED");
        deliver();
        assertThat(newestTo(address("Iris Fell")).path("text").asString()).contains("consent.pdf: could not be taken.");
        mail(address("Iris Fell"), way, "Subject: all of it\r\n", "scan 0001.pdf", TestRound.pdf("which?"));
        assertThat(first().path("parts").get(0).path("why").asString()).isEqualTo("It is not clear for which item it is: Consent, Field map.");
        mail(address("Iris Fell"), way, "Subject: too much\r\n", "field map.pdf", ("%PDF-1.4\n" + "x".repeat(1_100_000)).getBytes(StandardCharsets.UTF_8));
        assertThat(first().path("parts").get(0).path("outcome").asString()).as("1 MiB is the limit of the item").isEqualTo("REFUSED");
        assertThat(round.panel("Iris Fell").path("files")).isEmpty();
    }

    /** RFC 3834, 2: an automatic answer is never answered; lists and loops neither. */
    @ParameterizedTest
    @ValueSource(strings = {"Auto-Submitted: auto-replied", "List-Id: <walkers.example.org>", "Precedence: bulk", "Return-Path: <>", "X-Autoreply: yes", "Subject: Out of office: papers"})
    void programsAndListsAreNeverAnsweredAndLoseNothing(String header) {
        String sender = "machine." + mails + "@example.org";
        mail(sender, "papers@oak.example.org", header + "\r\n", "scan " + mails + ".pdf", TestRound.pdf(header));
        deliver();
        assertThat(letters(sender)).isEmpty();
        assertThat(trayNames()).anyMatch(name -> name.startsWith("scan "));
        mail("papers@oak.example.org", "papers@oak.example.org", "Subject: myself\r\n", "loop.pdf", TestRound.pdf("loop"));
        deliver();
        assertThat(letters("papers@oak.example.org")).isEmpty();
        assertThat(trayNames()).doesNotContain("loop.pdf");
    }

    @Test
    void aLetterThatComesBackMarksTheAddressAndIsSentAgainWhenItIsMended() {
        round.open();
        String olm = address("Olm Reed");
        desk.put("/api/post-office/moods", "{\"address\":\"" + olm + "\",\"mood\":\"BOUNCE\"}");
        JsonNode letter = invited("Olm Reed");
        look();
        JsonNode sent = ofBasket("Olm Reed");
        assertThat(sent.path("state").asString()).isEqualTo("BOUNCED");
        assertThat(sent.path("trouble").asString()).isEqualTo("550 5.1.1 User unknown");
        assertThat(letter.path("reports").asString()).as("VERP: the address says which letter").startsWith("papers+b").endsWith("@oak.example.org");
        assertThat(desk.get("/api/rounds/" + round.id + "/unreachable").json().get(0).path("basketId").asLong()).isEqualTo(round.row("Olm Reed").path("id").asLong());
        assertThat(desk.get("/api/post").json().path("undelivered").asInt()).isPositive();
        desk.post("/api/post-office/letters/" + letter.path("id").asLong() + "/bounce", "");
        assertThat(ofBasket("Olm Reed").path("state").asString()).as("told twice").isEqualTo("BOUNCED");
        desk.put("/api/post-office/moods", "{\"address\":\"" + olm + "\",\"mood\":\"TAKE\"}");
        assertThat(desk.post("/api/letters/" + sent.path("id").asLong() + "/again", "").status()).isEqualTo(204);
        deliver();
        assertThat(ofBasket("Olm Reed").path("state").asString()).isEqualTo("SENT");
        assertThat(desk.get("/api/rounds/" + round.id + "/unreachable").json()).isEmpty();
    }

    /** Shapes: RFC 3464, 2.3, and what a common server writes (from memory). */
    @Test
    void reportsWithoutOurAddressAreKnownByTheLetterTheyReturnAndStrangeOnesHarmNothing() {
        round.open();
        JsonNode letter = invited("Iris Fell");
        long id = ofBasket("Iris Fell").path("id").asLong();
        Instant made = app.getBean(JdbcClient.class).sql("SELECT made_at FROM letter WHERE id = :id").param("id", id).query(Instant.class).single();
        String head = "From: MAILER-DAEMON@mx.example.org\r\nTo: papers@oak.example.org\r\nSubject: Delivery Status Notification\r\nMIME-Version: 1.0\r\n";
        String report = head + "Content-Type: multipart/report; report-type=delivery-status; boundary=b\r\n\r\n--b\r\n\r\nhello\r\n--b\r\nContent-Type: message/delivery-status\r\n\r\nReporting-MTA: dns; x\r\n\r\n"
                + "Action: %s\r\nStatus: %s\r\nDiagnostic-Code: smtp; said so\r\n\r\n--b\r\nContent-Type: message/rfc822\r\n\r\nMessage-ID: <oak-letter-%d-%d@oak.example.org>\r\nSubject: x\r\n\r\nhi\r\n--b--\r\n";
        raw("MAILER-DAEMON@mx.example.org", report.formatted("failed", "5.1.1", id, made.toEpochMilli() + 1));
        assertThat(ofBasket("Iris Fell").path("state").asString()).as("not an id of ours").isEqualTo("SENT");
        raw("MAILER-DAEMON@mx.example.org", report.formatted("failed", "5.1.1", 999_999_999L, 1));
        raw("MAILER-DAEMON@mx.example.org", report.formatted("delayed", "4.4.1", id, made.toEpochMilli()));
        assertThat(ofBasket("Iris Fell").path("state").asString()).isEqualTo("SENT");
        assertThat(ofBasket("Iris Fell").path("trouble").asString()).contains("not delivered yet");
        raw("MAILER-DAEMON@mx.example.org", head + "\r\nThe following address failed:\r\n<iris@example.org>: 552 5.2.2 Mailbox full\r\n\r\nMessage-ID: <oak-letter-" + id + "-" + made.toEpochMilli() + "@oak.example.org>\r\n");
        assertThat(ofBasket("Iris Fell").path("state").asString()).isEqualTo("BOUNCED");
        assertThat(ofBasket("Iris Fell").path("trouble").asString()).contains("Mailbox full");
        assertThat(letter.path("to").asString()).isEqualTo(address("Iris Fell"));
    }

    @Test
    void anOutOfOfficeAnswerToALetterIsNeitherAnsweredNorTakenForABounce() {
        round.open();
        JsonNode letter = invited("Iris Fell");
        int before = letters(address("Iris Fell")).size();
        desk.send("POST", "/api/post-office/letters/" + letter.path("id").asLong() + "/answer?automatic=true", new byte[0], "Content-Type", "application/octet-stream");
        deliver();
        assertThat(letters(address("Iris Fell"))).hasSize(before);
        assertThat(ofBasket("Iris Fell").path("state").asString()).isEqualTo("SENT");
        assertThat(desk.get("/api/inward?all=true").json().path("messages").get(0).path("kind").asString()).isEqualTo("AUTOMATIC");
    }

    @Test
    void aWrittenAnswerIsReadAtTheDesk() {
        round.open();
        JsonNode letter = invited("Iris Fell");
        desk.send("POST", "/api/post-office/letters/" + letter.path("id").asLong() + "/answer?text=I%20need%20a%20week%20more", new byte[0], "Content-Type", "application/octet-stream");
        JsonNode message = first();
        assertThat(message.path("kind").asString()).isEqualTo("ANSWER");
        assertThat(message.path("name").asString()).isEqualTo("Iris Fell");
        assertThat(message.path("round").asString()).isEqualTo(round.title());
        int unread = desk.get("/api/inward").json().path("unread").asInt();
        assertThat(desk.put("/api/inward/" + message.path("id").asLong() + "/read", "{\"read\":true}").status()).isEqualTo(204);
        assertThat(desk.get("/api/inward").json().path("unread").asInt()).isEqualTo(unread - 1);
        assertThat(desk.get("/api/inward/" + message.path("id").asLong() + "/content").text()).contains("I need a week more");
        assertThat(desk.get("/api/inward?basket=" + round.row("Iris Fell").path("id").asLong()).json().path("messages")).hasSize(1);
    }

    /** Some programs part the text where an attachment stands in it, and send an invitation to a meeting as a part without a name. */
    @Test
    void whatIsWrittenBehindAnAttachmentAndAPartWithoutANameAreNotPassedOver() {
        raw("meets@example.org", """
                From: meets@example.org\r
                To: papers@oak.example.org\r
                Subject: in pieces\r
                MIME-Version: 1.0\r
                Content-Type: multipart/mixed; boundary=piece\r
                \r
                --piece\r
                Content-Type: text/plain\r
                \r
                The map.\r
                --piece\r
                Content-Type: text/calendar; method=REQUEST\r
                \r
                BEGIN:VCALENDAR\r
                END:VCALENDAR\r
                --piece\r
                Content-Type: text/plain\r
                \r
                And can we meet?\r
                --piece--\r
                """);
        JsonNode message = first();
        assertThat(message.path("text").asString()).contains("The map.", "And can we meet?");
        assertThat(message.path("parts").get(0).path("name").asString()).isEqualTo("mail-1.ics");
        assertThat(trayNames()).contains("mail-1.ics");
    }

    /** A contact that nobody needs any more goes, also where a message was supposed to be of it; the message stays. */
    @Test
    void aPersonWhoIsForgottenTakesNoMessageAlong() {
        JsonNode contact = desk.post("/api/contacts", "{\"name\":\"Noa Gone\",\"email\":\"noa.gone." + mails + "@example.org\",\"version\":0}").json().path("contact");
        mail(contact.path("email").asString(), "papers@oak.example.org", "Subject: of Noa\r\n", "noa.pdf", TestRound.pdf("noa"));
        assertThat(first().path("contactId").asLong()).isEqualTo(contact.path("id").asLong());
        desk.put("/api/contacts/" + contact.path("id") + "/quiet-hours", "{\"quietFrom\":\"20:00\",\"quietTo\":\"08:00\"}");
        assertThat(app.getBean(JdbcClient.class).sql("DELETE FROM contact WHERE id = :id").param("id", contact.path("id").asLong()).update()).isEqualTo(1);
        assertThat(first().path("contactId").isNull()).isTrue();
        assertThat(first().path("fromAddress")).isEqualTo(contact.path("email"));
    }

    /** Each is survived: nothing is filed of what cannot be read, and what comes after is dealt with. */
    @Test
    void hostileMessagesAreSurvived() {
        StringBuilder deep = new StringBuilder("Content-Type: multipart/mixed; boundary=b0\r\n\r\n");
        for (int i = 0; i < 1_000; i++) {
            deep.append("--b").append(i).append("\r\nContent-Type: multipart/mixed; boundary=b").append(i + 1).append("\r\n\r\n");
        }
        String many = "Content-Type: multipart/mixed; boundary=b\r\n\r\n" + "--b\r\nContent-Disposition: attachment; filename=a.pdf\r\n\r\nx\r\n".repeat(5_000) + "--b--\r\n";
        String nested = "Content-Type: message/rfc822\r\n\r\n".repeat(1_000);
        String header = "X-Long: " + "y".repeat(200_000) + "\r\n\r\nhi";
        String lines = "Content-Type: text/plain\r\n\r\n" + "z".repeat(2_000_000);
        String winmail = "Content-Type: application/ms-tnef; name=winmail.dat\r\nContent-Transfer-Encoding: base64\r\n\r\n" + Base64.getMimeEncoder().encodeToString(new byte[] {0x78, (byte) 0x9f, 0x3e, 0x22, 1, 2, 3}) + "\r\n";
        String broken = "Content-Type: multipart/mixed; boundary=\r\n\r\n--\r\nContent-Transfer-Encoding: base64\r\nContent-Disposition: attachment; filename*=utf-9''%ff%zz\r\n\r\n!!!!\r\n";
        String path = "Content-Type: application/pdf; name=\"../../../etc/passwd\"\r\nContent-Disposition: attachment; filename=\"..\\\\..\\\\CON.pdf\"\r\n\r\n%PDF-1.4\r\n%%EOF\r\n";
        List<String> bodies = List.of(deep.toString(), many, nested, header, lines, winmail, broken, path, "\r\n", "Subject: =?utf-8?q?" + "=00".repeat(100) + "?=\r\n\r\nx");
        long before = desk.get("/api/inward?all=true").json().path("messages").size();
        for (String body : bodies) {
            raw("hostile@example.org", "From: hostile@example.org\r\nTo: papers@oak.example.org\r\nMIME-Version: 1.0\r\n" + body);
        }
        raw("hostile@example.org", "no header at all");
        raw("hostile@example.org", "From: a@example.org, b@example.org\r\nFrom: \"\u0000\" <c@\r\nTo: " + "x@example.org, ".repeat(5_000) + "\r\n\r\nhi");
        assertThat(app.getBean(JdbcClient.class).sql("SELECT COUNT(*) FROM inward_message WHERE state = 'TAKEN'").query(Integer.class).single()).isZero();
        assertThat(desk.get("/api/inward?all=true").json().path("messages").size()).isEqualTo((int) Math.min(50, before + bodies.size() + 2));
        assertThat(trayNames()).contains("winmail.dat").noneMatch(name -> name.contains("/") || name.contains("\\") || name.equals("CON.pdf"));
        round.open();
        mail(address("Iris Fell"), "papers@oak.example.org", "Subject: still alive\r\n", "alive.pdf", TestRound.pdf("alive"));
        assertThat(trayNames()).contains("alive.pdf");
        assertThat(postInParts()).as("nothing unpacked is left").isEmpty();
    }

    @Test
    void aMessageThatIsTooLargeIsAnsweredAndTheSameTwiceIsOne() {
        round.open();
        String to = desk.get("/api/baskets/" + round.row("Iris Fell").path("id").asLong() + "/mail-way").json().path("address").asString();
        String large = "From: " + address("Iris Fell") + "\r\nTo: " + to + "\r\nSubject: large\r\nContent-Type: application/pdf; name=consent.pdf\r\n\r\n" + ("x".repeat(998) + "\r\n").repeat(68_000);
        raw(address("Iris Fell"), large);
        assertThat(first().path("kind").asString()).isEqualTo("TOO_LARGE");
        deliver();
        assertThat(newestTo(address("Iris Fell")).path("text").asString()).contains("too large", "64 MB");
        String once = message(address("Iris Fell"), to, "Subject: twice\r\nMessage-ID: <twice@example.org>\r\n", "consent.pdf", TestRound.pdf("twice"));
        raw(address("Iris Fell"), once);
        raw(address("Iris Fell"), "Received: from elsewhere by here\r\n" + once);
        assertThat(round.panel("Iris Fell").path("files")).hasSize(1);
        assertThat(desk.get("/api/inward?all=true").json().path("messages").get(0).path("kind").asString()).isEqualTo("DUPLICATE");
        raw(address("Iris Fell"), message(address("Iris Fell"), to, "Subject: no id\r\n", "consent.pdf", TestRound.pdf("another")));
        assertThat(round.panel("Iris Fell").path("files")).as("without a Message-ID the content tells").hasSize(2);
    }

    @Test
    void theServersAreLookedAtInWords() {
        JsonNode fine = desk.post("/api/mail-servers/check", "").json();
        assertThat(fine.path("letters").asString()).isEmpty();
        assertThat(fine.path("mailbox").asString()).isEmpty();
        JavaMailSenderImpl sender = app.getBean(JavaMailSenderImpl.class);
        String host = sender.getHost();
        int port = sender.getPort();
        try {
            sender.setHost("mail.no-such-place.invalid");
            assertThat(desk.post("/api/mail-servers/check", "").json().path("letters").asString()).isEqualTo("No machine is called mail.no-such-place.invalid. Look at the name of the server");
            sender.setHost(host);
            sender.setPort(1);
            assertThat(desk.post("/api/mail-servers/check", "").json().path("letters").asString()).contains("Nothing listens on port 1 of 127.0.0.1");
        } finally {
            sender.setHost(host);
            sender.setPort(port);
        }
    }

    // --- helpers

    private JsonNode invited(String name) {
        RunningApp.CLOCK.set(RunningApp.CLOCK.instant().plusSeconds(120));
        deliver();
        return newestTo(address(name));
    }

    private void deliver() {
        app.getBean(Postman.class).deliver();
        desk.post("/api/inward/look", "");
        RunningApp.CLOCK.set(RunningApp.CLOCK.instant().plusSeconds(1));
        try {
            Class<?> answering = Class.forName("oakbasket.server.inward.Answering");
            Method send = answering.getDeclaredMethod("send");
            send.setAccessible(true);
            send.invoke(app.getBean(answering));
        } catch (ReflectiveOperationException changed) {
            throw new IllegalStateException(changed);
        }
    }

    private static void look() {
        app.getBean(Collecting.class).look();
    }

    private String address(String name) {
        return round.row(name).path("email").asString();
    }

    private String way(String name) {
        return desk.get("/api/baskets/" + round.row(name).path("id").asLong() + "/mail-way").json().path("address").asString();
    }

    private static void gather() {
        try {
            Class<?> type = Class.forName("oakbasket.server.inward.Answering");
            Method gather = type.getDeclaredMethod("gather");
            gather.setAccessible(true);
            gather.invoke(app.getBean(type));
        } catch (ReflectiveOperationException problem) {
            throw new IllegalStateException(problem);
        }
    }

    private JsonNode first() {
        return desk.get("/api/inward").json().path("messages").get(0);
    }

    private JsonNode ofBasket(String name) {
        return desk.get("/api/baskets/" + round.row(name).path("id").asLong() + "/letters").json().path("letters").get(0);
    }

    private List<JsonNode> letters(String to) {
        return StreamSupport.stream(desk.get("/api/post-office").json().path("letters").spliterator(), false).filter(one -> one.path("to").asString().equals(to)).toList();
    }

    private JsonNode newestTo(String to) {
        return letters(to).get(0);
    }

    private List<String> trayNames() {
        return StreamSupport.stream(desk.get("/api/tray").json().path("entries").spliterator(), false).flatMap(entry -> StreamSupport.stream(entry.path("files").spliterator(), false))
                .map(file -> file.path("name").asString()).toList();
    }

    private static List<String> postInParts() {
        try (Stream<Path> lying = Files.list(DATA.resolve("post-in"))) {
            return lying.map(path -> path.getFileName().toString()).filter(name -> name.endsWith(".part")).toList();
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    private void mail(String from, String to, String headers, String name, byte[] content) {
        raw(from, message(from, to, headers, name, content));
    }

    private static String message(String from, String to, String headers, String name, byte[] content) {
        return "From: Somebody <" + from + ">\r\nTo: " + to + "\r\nDate: Mon, 1 Jun 2026 09:00:" + "%02d".formatted(++mails % 60) + " +0000\r\n" + headers + "MIME-Version: 1.0\r\n"
                + "Content-Type: multipart/mixed; boundary=part\r\n\r\n--part\r\nContent-Type: text/plain\r\n\r\nHere.\r\n--part\r\nContent-Type: application/octet-stream\r\n"
                + "Content-Disposition: attachment; filename=\"" + name + "\"\r\nContent-Transfer-Encoding: base64\r\n\r\n" + Base64.getMimeEncoder().encodeToString(content) + "\r\n--part--\r\n";
    }

    /** Sends bytes as they are by SMTP to the collecting address, and has the mailbox looked at. */
    private static void raw(String from, String message) {
        JavaMailSenderImpl server = app.getBean(JavaMailSenderImpl.class);
        String to = message.lines().filter(line -> line.startsWith("To: papers")).map(line -> line.substring(4)).findFirst().orElse("papers@oak.example.org");
        try (Socket socket = new Socket(server.getHost(), server.getPort()); BufferedReader in = new BufferedReader(new InputStreamReader(socket.getInputStream(), StandardCharsets.US_ASCII))) {
            OutputStream out = socket.getOutputStream();
            in.readLine();
            for (String line : List.of("HELO test", "MAIL FROM:<" + from + ">", "RCPT TO:<" + to + ">", "DATA")) {
                out.write((line + "\r\n").getBytes(StandardCharsets.US_ASCII));
                assertThat(in.readLine()).startsWith(line.equals("DATA") ? "354" : "250");
            }
            ByteArrayOutputStream stuffed = new ByteArrayOutputStream();
            stuffed.writeBytes(message.replace("\r\n.", "\r\n..").getBytes(StandardCharsets.UTF_8));
            stuffed.writeBytes("\r\n.\r\n".getBytes(StandardCharsets.US_ASCII));
            stuffed.writeTo(out);
            assertThat(in.readLine()).startsWith("250");
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
        look();
    }
}
