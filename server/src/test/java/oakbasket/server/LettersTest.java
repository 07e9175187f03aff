package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.mail.Part;
import jakarta.mail.internet.MimeMessage;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import net.fortuna.ical4j.data.CalendarBuilder;
import net.fortuna.ical4j.model.component.VEvent;
import oakbasket.server.post.Postman;
import oakbasket.server.post.ReminderRounds;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.jdbc.core.simple.JdbcClient;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Letters over HTTP, carried by the stand-in for a mail server. The deadline of test rounds is Tuesday 30 June 2026, 17:00 in London. */
class LettersTest {

    private static final String PLAN = "{\"steps\":[{\"days\":-3,\"unit\":\"WORKING\",\"at\":\"09:00\"},{\"days\":1,\"unit\":\"WORKING\",\"at\":\"10:00\"}]}";
    private static final String INVITE = "{\"invite\":true,\"tellReturned\":true}";

    @BeforeEach
    @AfterEach
    void setTheClockBack() {
        RunningApp.CLOCK.set(Instant.parse("2026-06-01T09:00:00Z"));
    }

    @Test
    void anInvitationWaitsAMinuteThenGoesWithALinkThatOpens() {
        TestRound round = new TestRound().onlyPeople("Iris Fell").withLetters(INVITE).open();
        assertThat(letters(round, "Iris Fell")).containsExactly("INVITATION WAITING");
        RunningApp.CLOCK.set(Instant.parse("2026-06-01T09:00:30Z"));
        deliver();
        assertThat(Outbox.to("Iris Fell")).as("it can still be stopped").isEmpty();
        RunningApp.CLOCK.set(Instant.parse("2026-06-01T09:02:00Z"));
        deliver();
        MimeMessage mail = Outbox.to("Iris Fell").get(0);
        assertThat(Outbox.subject(mail)).isEqualTo(round.title() + ": papers we need from you");
        assertThat(Outbox.header(mail, "Reply-To")).contains(RunningApp.EMAIL);
        assertThat(Outbox.header(mail, "Auto-Submitted")).isEqualTo("auto-generated");
        assertThat(Outbox.text(mail)).contains("Dear Iris Fell,", "  - Consent\n", "Due by Tuesday 30 June 2026, 17:00 (British Time)", "Fennbrook Catchment Partnership");
        String token = Outbox.text(mail).replaceAll("(?s).*/b/([\\w-]+).*", "$1");
        assertThat(new TestRound.Sender(token).page().json().path("title").asString()).isEqualTo(round.title());
        assertThat(round.row("Iris Fell").path("progress").asString()).isIn("ASKED", "OPENED");
        assertThat(letters(round, "Iris Fell")).containsExactly("INVITATION SENT");
        assertThat(RunningApp.bean(JdbcClient.class).sql("SELECT body FROM letter").query(String.class).list()).as("the database opens no link").noneMatch(body -> body.contains(token));
        long id = ofBasket(round, "Iris Fell").path("letters").get(0).path("id").asLong();
        assertThat(round.desk.get("/api/letters/" + id).json().path("body").asString()).as("the coordinator can copy it").isEqualTo(Outbox.text(mail));
        assertThat(round.desk.post("/api/letters/" + id + "/stop", "").problem()).isEqualTo("letter-gone");
        assertThat(round.desk.post("/api/letters/" + id + "/again", "").problem()).isEqualTo("letter-gone");
        assertThat(round.desk.get("/api/contacts/" + round.row("Iris Fell").path("contactId").asLong() + "/letters").json()).hasSize(1);
    }

    @Test
    void whoeverHasJustSentEverythingIsNotWrittenTo() {
        TestRound round = new TestRound().onlyPeople("Jude Marsh", "Kit Ouse").withLetters(INVITE).open();
        round.personal("Jude Marsh").begin().send(1, "c.pdf", TestRound.pdf("x"));
        round.desk.post("/api/rounds/" + round.id + "/people", "{\"people\":[{\"name\":\"Lou Tarn\",\"email\":\"lou.tarn@example.org\"}],\"groups\":[]}");
        RunningApp.CLOCK.set(Instant.parse("2026-06-01T09:05:00Z"));
        deliver();
        assertThat(letters(round, "Jude Marsh")).containsExactly("INVITATION STOPPED COMPLETE");
        assertThat(letters(round, "Kit Ouse")).containsExactly("INVITATION SENT");
        assertThat(letters(round, "Lou Tarn")).as("whoever is asked late is invited too").containsExactly("INVITATION SENT");
        assertThat(Outbox.to("Jude Marsh")).isEmpty();
    }

    @Test
    void thePlanGoesOnlyToThoseWhoStillOweAndOnce() {
        TestRound round = new TestRound().item("Map", true, 3, 5, 1, "PDF").onlyPeople("Mina Rook", "Nell Otter", "Oren Pike", "Pia Swift", "Quin Vole").withLetters(PLAN).open();
        List.of("Mina Rook", "Nell Otter", "Oren Pike", "Pia Swift").forEach(name -> handOver(round, name));
        look();
        for (int n = 0; n < 3; n++) {
            round.personal("Mina Rook").begin().send(2, "m" + n + ".pdf", TestRound.pdf("m" + n));
        }
        round.personal("Mina Rook").begin().send(1, "c.pdf", TestRound.pdf("c"));
        round.personal("Nell Otter").begin().send(2, "m.pdf", TestRound.pdf("n"));
        round.act("PAUSE", "Oren Pike", "\"on\":true");
        round.act("EXTEND", "Pia Swift", "\"date\":\"2026-07-10\",\"reason\":\"away\"");
        assertThat(next(round, "Nell Otter")).isEqualTo("2026-06-25T08:00:00Z REMINDER");
        assertThat(next(round, "Pia Swift")).isEqualTo("2026-07-07T08:00:00Z REMINDER");
        assertThat(next(round, "Mina Rook")).isEqualTo("COMPLETE");
        assertThat(next(round, "Oren Pike")).isEqualTo("PAUSED");
        assertThat(next(round, "Quin Vole")).isEqualTo("NOT_ASKED");
        assertThat(ticks(round)).containsExactly("REMINDER 2026-06-25T08:00:00Z 1 planned", "OVERDUE 2026-07-01T09:00:00Z 1 planned", "REMINDER 2026-07-07T08:00:00Z 1 planned",
                "OVERDUE 2026-07-13T09:00:00Z 1 planned");
        RunningApp.CLOCK.set(Instant.parse("2026-06-25T08:00:10Z"));
        look();
        look();
        deliver();
        assertThat(Outbox.to("Nell Otter")).hasSize(1);
        assertThat(Outbox.text(Outbox.to("Nell Otter").get(0))).contains("  - Consent\n  - Map (1 of 3 have come)\n");
        assertThat(List.of("Mina Rook", "Oren Pike", "Pia Swift", "Quin Vole")).allSatisfy(name -> assertThat(Outbox.to(name)).isEmpty());
        RunningApp.CLOCK.set(Instant.parse("2026-07-01T09:00:10Z"));
        look();
        deliver();
        assertThat(Outbox.to("Nell Otter").stream().map(Outbox::subject)).containsExactly("Still missing: " + round.title(), "Past the deadline: " + round.title());
        assertThat(ticks(round)).contains("REMINDER 2026-06-25T08:00:00Z 1", "OVERDUE 2026-07-01T09:00:00Z 1");
        JsonNode coming = round.desk.get("/api/letters/coming").json();
        assertThat(coming.valueStream().filter(one -> one.path("roundId").asLong() == round.id).map(one -> one.path("date").asString() + " " + one.path("letters").asInt()))
                .containsExactly("2026-07-07 1", "2026-07-13 1");
    }

    @Test
    void aDayThatWasChangedIntoThePastIsNotMadeUpForAndAStandstillMakesNoPile() {
        TestRound round = new TestRound().onlyPeople("Rhea Sedge").withLetters(PLAN).open();
        handOver(round, "Rhea Sedge");
        RunningApp.CLOCK.set(Instant.parse("2026-06-26T12:00:00Z"));
        look();
        round.act("EXTEND", "Rhea Sedge", "\"date\":\"2026-06-30\",\"reason\":\"as before\"");
        look();
        assertThat(letters(round, "Rhea Sedge")).as("the 25th was past at the first look").isEmpty();
        RunningApp.CLOCK.set(Instant.parse("2026-07-04T22:00:00Z"));
        look();
        assertThat(letters(round, "Rhea Sedge")).containsExactly("OVERDUE WAITING");
        deliver();
        assertThat(Outbox.to("Rhea Sedge")).as("it is Saturday night").isEmpty();
        RunningApp.CLOCK.set(Instant.parse("2026-07-06T06:00:01Z"));
        deliver();
        assertThat(Outbox.to("Rhea Sedge")).hasSize(1);
    }

    @Test
    void twoRoundsOfOneDayAreOneLetter() {
        TestRound first = new TestRound().onlyPeople("Sol Wren").withLetters(PLAN).open();
        TestRound second = new TestRound().withLetters("{\"steps\":[{\"days\":-3,\"unit\":\"WORKING\",\"at\":\"15:00\"}]}");
        second.sheet.set("people", first.sheet.path("people"));
        second.open();
        handOver(first, "Sol Wren");
        handOver(second, "Sol Wren");
        look();
        RunningApp.CLOCK.set(Instant.parse("2026-06-25T08:00:10Z"));
        look();
        deliver();
        RunningApp.CLOCK.set(Instant.parse("2026-06-25T14:30:00Z"));
        look();
        deliver();
        List<MimeMessage> mails = Outbox.to("Sol Wren");
        assertThat(mails).hasSize(1);
        assertThat(Outbox.subject(mails.get(0))).isEqualTo("Still missing: " + first.title() + ", " + second.title());
        assertThat(Outbox.text(mails.get(0)).split("/b/")).as("a link for each").hasSize(3);
        assertThat(letters(second, "Sol Wren")).containsExactly("REMINDER SENT");
    }

    @Test
    void lettersByHandSayFirstWhatTheyMeanAndCanBeStoppedTogether() {
        TestRound round = new TestRound().onlyPeople("Tess Alder", "Uma Birch", "Vic Crane", "Wim Dale").withLetters(INVITE.replace("true", "false")).open();
        handOver(round, "Uma Birch");
        round.personal("Vic Crane").begin().send(1, "c.pdf", TestRound.pdf("x"));
        round.act("EXCUSE", "Wim Dale", "\"on\":true");
        String all = chosen(round, "Tess Alder", "Uma Birch", "Vic Crane", "Wim Dale");
        JsonNode preview = round.desk.post("/api/rounds/" + round.id + "/letters/preview", all).json();
        assertThat(preview.path("kinds").toString()).isEqualTo("{\"INVITATION\":1,\"REMINDER\":1}");
        assertThat(preview.path("skipped").toString()).isEqualTo("{\"COMPLETE\":1,\"EXCUSED\":1}");
        assertThat(letters(round, "Tess Alder")).isEmpty();
        long batch = round.desk.post("/api/rounds/" + round.id + "/letters", all).json().path("batch").asLong();
        assertThat(round.desk.post("/api/rounds/" + round.id + "/letters", all).json().path("skipped").path("ON_ITS_WAY").asInt()).as("nobody gets two").isEqualTo(2);
        assertThat(round.desk.post("/api/letters/batches/" + batch + "/stop", "").json().path("letters").asInt()).isEqualTo(2);
        RunningApp.CLOCK.set(Instant.parse("2026-06-01T10:00:00Z"));
        deliver();
        assertThat(letters(round, "Tess Alder")).containsExactly("INVITATION STOPPED BY_HAND");
        assertThat(Outbox.to("Tess Alder")).isEmpty();
        long stopped = ofBasket(round, "Tess Alder").path("letters").get(0).path("id").asLong();
        assertThat(round.desk.post("/api/letters/" + stopped + "/again", "").status()).isEqualTo(204);
        deliver();
        assertThat(Outbox.to("Tess Alder")).hasSize(1);
        RunningApp.CLOCK.set(Instant.parse("2026-07-01T10:00:00Z"));
        assertThat(round.desk.post("/api/rounds/" + round.id + "/letters/preview", all).json().path("kinds").path("OVERDUE").asInt()).isEqualTo(2);
        round.desk.post("/api/rounds/" + round.id + "/close", "");
        assertThat(round.desk.post("/api/rounds/" + round.id + "/letters", all).json().path("skipped").path("ROUND_NOT_GATHERING").asInt()).isEqualTo(4);
        assertThat(round.desk.post("/api/rounds/" + round.id + "/letters", "{\"baskets\":[]}").at("baskets")).contains("Choose 1 to");
        assertThat(round.desk.post("/api/rounds/" + round.id + "/letters", "{\"baskets\":[999999]}").problem()).isEqualTo("no-basket");
    }

    @Test
    void severalReturnsAreOneLetterAndOneThatWasTakenBackIsNone() {
        TestRound round = new TestRound().item("Map", true, 1, 5, 1, "PDF").onlyPeople("Xan Elm", "Yara Fern").withLetters(INVITE.replaceFirst("true", "false")).open();
        for (String name : List.of("Xan Elm", "Yara Fern")) {
            TestRound.Sender sender = round.personal(name).begin();
            sender.send(1, "c.pdf", TestRound.pdf(name));
            sender.send(2, "m.pdf", TestRound.pdf("map " + name));
        }
        review(round, "Xan Elm", 0, "NONE", "RETURNED", "Page 2 is missing");
        review(round, "Xan Elm", 1, "NONE", "RETURNED", "Too dark\\r\\nBcc: all@example.org");
        review(round, "Yara Fern", 0, "NONE", "RETURNED", "Wrong year");
        review(round, "Yara Fern", 0, "RETURNED", "NONE", "");
        assertThat(letters(round, "Xan Elm")).containsExactly("RETURN WAITING");
        RunningApp.CLOCK.set(Instant.parse("2026-06-01T09:11:00Z"));
        deliver();
        assertThat(Outbox.text(Outbox.to("Xan Elm").get(0))).contains("  - Consent (please send again: Page 2 is missing)\n", "Map (please send again: Too dark");
        assertThat(Outbox.header(Outbox.to("Xan Elm").get(0), "Bcc")).isEqualTo("null");
        assertThat(letters(round, "Yara Fern")).containsExactly("RETURN STOPPED NOTHING_RETURNED");
    }

    /** Sources: RFC 5545 (the entry, read by ical4j), RFC 6047 §2.4 (its media type), RFC 3834 §5 and RFC 3676 §4.3 (what machines send, and what parts a signature). */
    @Test
    void everyLetterHasTheOfficesSignatureAsTextAndHtmlAndTheDeadlineAsACalendarEntry() throws Exception {
        Http desk = Http.desk();
        String before = desk.get("/api/letter-settings").text();
        int version = desk.get("/api/letter-settings").json().path("version").asInt();
        assertThat(desk.put("/api/letter-settings", "{\"replyTo\":\"nobody\",\"version\":" + version + "}").at("replyTo")).contains("name@example.org");
        assertThat(desk.put("/api/letter-settings", "{\"signature\":\"" + "x".repeat(1001) + "\",\"version\":" + version + "}").at("signature")).isNotEmpty();
        assertThat(desk.get("/api/letter-settings").text()).as("nothing half-stored").isEqualTo(before);
        assertThat(desk.put("/api/letter-settings", "{\"signature\":\"Ring 01632 960000\",\"replyTo\":\"papers@example.org\",\"calendar\":true,\"version\":" + version + "}").status()).isEqualTo(200);
        assertThat(desk.put("/api/letter-settings", "{\"version\":" + version + "}").problem()).isEqualTo("changed-elsewhere");
        try {
            TestRound round = new TestRound().onlyPeople("Ina Reed").withLetters(INVITE).open();
            RunningApp.CLOCK.set(Instant.parse("2026-06-01T09:11:00Z"));
            deliver();
            MimeMessage mail = Outbox.to("Ina Reed").get(0);
            assertThat(Outbox.header(mail, "Reply-To")).contains("papers@example.org");
            assertThat(Outbox.header(mail, "X-Auto-Response-Suppress")).isEqualTo("OOF, AutoReply");
            assertThat(Outbox.text(mail)).endsWith("\n-- \nRing 01632 960000\n");
            String html = (String) Outbox.part(mail, "text/html").getContent();
            String link = Outbox.text(mail).replaceAll("(?s).*(https?://\\S+/b/\\S+).*", "$1");
            assertThat(html).contains("<a href=\"" + link + "\"", ">" + link + "</a>", "Ring 01632 960000");
            Part entry = Outbox.part(mail, "text/calendar");
            assertThat(entry.getContentType()).contains("method=PUBLISH");
            VEvent event = (VEvent) new CalendarBuilder().build(entry.getInputStream()).getComponents("VEVENT").get(0);
            assertThat(event.getSummary().getValue()).isEqualTo("Deadline: " + round.title() + " (Fennbrook Catchment Partnership)");
            assertThat(Instant.from(event.getDateTimeStart().getDate())).isEqualTo(Instant.parse("2026-06-30T16:00:00Z"));
            assertThat(event.getUid().orElseThrow().getValue()).startsWith("deadline-" + round.row("Ina Reed").path("id"));
        } finally {
            desk.put("/api/letter-settings", "{\"version\":" + (version + 1) + "}");
        }
    }

    @Test
    void whoIsGivenMoreTimeIsToldUntilWhenAndNobodyElse() {
        TestRound round = new TestRound().onlyPeople("Ola Moor", "Pim Fen", "Quy Lea").withLetters("{\"tellExtended\":true}").open();
        TestRound.Sender quy = round.personal("Quy Lea").begin();
        quy.send(1, "c.pdf", TestRound.pdf("q"));
        for (String name : List.of("Ola Moor", "Pim Fen", "Quy Lea")) {
            round.act("EXTEND", name, "\"date\":\"2026-07-10\",\"reason\":\"asked for it\"");
        }
        round.act("EXTEND", "Ola Moor", "\"date\":\"2026-07-12\",\"reason\":\"asked for it\"");
        round.act("EXTEND", "Pim Fen", "\"date\":null,\"reason\":\"asked for it\"");
        RunningApp.CLOCK.set(RunningApp.CLOCK.instant().plus(Duration.ofHours(1)));
        deliver();
        assertThat(Outbox.to("Ola Moor").stream().map(Outbox::subject)).containsExactly("More time: " + round.title());
        assertThat(Outbox.text(Outbox.to("Ola Moor").get(0))).contains("12 July 2026", "  - Consent\n");
        assertThat(letters(round, "Pim Fen")).as("taken back before it went").containsExactly("EXTENSION STOPPED NOT_EXTENDED");
        assertThat(letters(round, "Quy Lea")).as("owes nothing").allMatch(one -> one.startsWith("EXTENSION STOPPED"));
        round.act("EXTEND", "Ola Moor", "\"date\":\"2026-07-01\",\"reason\":\"asked for it\"");
        assertThat(letters(round, "Ola Moor")).as("less time is no such letter").containsExactly("EXTENSION SENT");
    }

    @Test
    void whoCameThroughTheOpenLinkIsToldOfAReturnWithThatLinkButNotReminded() {
        TestRound round = new TestRound().onlyPeople("Gil Tern").withLetters(INVITE.replaceFirst("true", "false")).withOpenLink("").open();
        TestRound.Sender stranger = round.openLink();
        stranger.begin("Hal Walker", "hal.walker@example.net");
        stranger.send(1, "c.pdf", TestRound.pdf("hal"));
        review(round, "Hal Walker", 0, "NONE", "RETURNED", "Unsigned");
        RunningApp.CLOCK.set(Instant.parse("2026-06-01T09:11:00Z"));
        deliver();
        assertThat(Outbox.text(Outbox.to("Hal Walker").get(0))).contains("/b/" + stranger.token);
        assertThat(next(round, "Hal Walker")).isEqualTo("WALK_IN");
        assertThat(round.desk.post("/api/rounds/" + round.id + "/letters", chosen(round, "Hal Walker")).json().path("skipped").path("WALK_IN").asInt()).isEqualTo(1);
    }

    @Test
    void everyoneReadsTheDeadlineInTheirOwnTimeToo() {
        TestRound round = new TestRound().onlyPeople("Ila Rai").withLetters(PLAN).open();
        long contact = round.row("Ila Rai").path("contactId").asLong();
        JsonNode now = round.desk.get("/api/contacts/" + contact).json().path("contact");
        round.desk.put("/api/contacts/" + contact, "{\"version\":" + now.path("version") + ",\"name\":\"Ila Rai\",\"email\":\"" + now.path("email").asString() + "\",\"zone\":\"Asia/Kathmandu\"}");
        handOver(round, "Ila Rai");
        assertThat(next(round, "Ila Rai")).as("nine in the morning there").isEqualTo("2026-06-25T03:15:00Z REMINDER");
        look();
        RunningApp.CLOCK.set(Instant.parse("2026-06-25T03:15:20Z"));
        look();
        deliver();
        assertThat(Outbox.text(Outbox.to("Ila Rai").get(0))).contains("Due by Tuesday 30 June 2026, 17:00 (British Time), which is Tuesday 30 June 2026, 21:45 where you are");
    }

    @Test
    void aPlanOfAGatheringRoundIsChangedFromNowOnAndAReopenedRoundBeginsAnew() {
        TestRound round = new TestRound().onlyPeople("Ned Pool").open();
        handOver(round, "Ned Pool");
        look();
        RunningApp.CLOCK.set(Instant.parse("2026-06-26T12:00:00Z"));
        look();
        ObjectNode change = (ObjectNode) round.desk.get("/api/rounds/" + round.id + "/change").json();
        ((ObjectNode) change.path("sheet")).set("letters", Http.JSON.readTree(PLAN));
        assertThat(round.desk.post("/api/rounds/" + round.id + "/change/preview", change.toString()).json().path("plain").toString()).contains("Reminders go by the new plan");
        assertThat(round.desk.post("/api/rounds/" + round.id + "/change", change.toString()).status()).isLessThan(300);
        look();
        deliver();
        assertThat(letters(round, "Ned Pool")).as("the 25th has passed").isEmpty();
        round.desk.post("/api/rounds/" + round.id + "/close", "");
        look();
        RunningApp.CLOCK.set(Instant.parse("2026-07-01T09:30:00Z"));
        look();
        round.desk.post("/api/rounds/" + round.id + "/reopen", "");
        look();
        assertThat(letters(round, "Ned Pool")).as("it was closed when the notice would have gone").isEmpty();
    }

    @Test
    void theOfficesOwnWordsAreCheckedKeptAndTakenBack() {
        Http desk = Http.desk();
        assertThat(text("Hello {nmae}", "{papers}", 0).at("subject")).contains("{nmae}", "{coordinator}");
        assertThat(text("Hello", "Dear {name}", 0).at("body")).contains("{papers}");
        assertThat(desk.post("/api/letter-texts/example", "{\"subject\":\"Hi {name}\",\"body\":\"{papers}\"}").json().path("subject").asString()).isEqualTo("Hi Ada Brook");
        assertThat(text("Zoë’s papers, {name}", "Hei {name}\\n{papers}", 0).json().path("version").asInt()).isEqualTo(1);
        assertThat(text("Again", "{papers}", 0).problem()).isEqualTo("changed-elsewhere");
        TestRound round = new TestRound().onlyPeople("Zoë Ånd").open();
        handOver(round, "Zoë Ånd");
        round.desk.post("/api/rounds/" + round.id + "/letters", chosen(round, "Zoë Ånd"));
        RunningApp.CLOCK.set(Instant.parse("2026-06-01T09:11:00Z"));
        deliver();
        String subject = "Zoë’s papers, Zoë Ånd";
        assertThat(RunningApp.bean(JdbcClient.class).sql("SELECT subject FROM letter ORDER BY id DESC FETCH FIRST ROW ONLY").query(String.class).single()).isEqualTo(subject);
        assertThat(desk.send("DELETE", "/api/letter-texts/REMINDER", null).json().path("version").asInt()).isZero();
        assertThat(desk.put("/api/letter-texts/NONSENSE", "{}").status()).isEqualTo(400);
        assertThat(round.desk.get("/api/letters?find=zo%C3%AB&state=SENT").json().path("letters").get(0).path("subject").asString()).isEqualTo(subject);
    }

    @Test
    void aPlanIsCheckedFieldByField() {
        TestRound round = new TestRound().onlyPeople("Ann Gorse").withLetters("{\"repeatTimes\":99,\"repeatEvery\":0,\"steps\":[{\"days\":-999,\"at\":\"09:00\"},{\"days\":1,\"at\":\"23:00\"},{\"days\":1,\"at\":\"soon\"}]}");
        Http.Answer refused = round.tryOpen();
        assertThat(refused.at("letters.steps[0].days")).contains("180");
        assertThat(refused.at("letters.steps[1].at")).contains("20:00");
        assertThat(refused.at("letters.steps[2].at")).contains("09:00");
        assertThat(refused.at("letters.repeatTimes")).contains("20");
        assertThat(refused.at("letters.repeatEvery")).contains("60");
        round.withLetters(PLAN).tryOpen();
        JsonNode example = round.desk.get("/api/rounds/" + round.id + "/letter-example").json();
        assertThat(example.path("body").asString()).contains("  - Consent\n");
    }

    // --- helpers

    private static Http.Answer text(String subject, String body, int version) {
        return Http.desk().put("/api/letter-texts/REMINDER", "{\"subject\":\"" + subject + "\",\"body\":\"" + body + "\",\"version\":" + version + "}");
    }

    private static void deliver() {
        RunningApp.bean(Postman.class).deliver();
    }

    private static void look() {
        RunningApp.bean(ReminderRounds.class).look();
    }

    private static void handOver(TestRound round, String name) {
        round.desk.post("/api/baskets/" + round.row(name).path("id").asLong() + "/handed-over", "");
    }

    private static void review(TestRound round, String name, int file, String from, String to, String reason) {
        long id = round.panel(name).path("files").get(file).path("id").asLong();
        Http.Answer answer = round.desk.post("/api/files/" + id + "/review", "{\"from\":\"" + from + "\",\"to\":\"" + to + "\",\"reason\":\"" + reason + "\"}");
        assertThat(answer.status()).as(answer.text()).isEqualTo(204);
    }

    private static String chosen(TestRound round, String... names) {
        return "{\"baskets\":[" + Arrays.stream(names).map(name -> round.row(name).path("id").asString()).collect(Collectors.joining(",")) + "]}";
    }

    private static JsonNode ofBasket(TestRound round, String name) {
        return round.desk.get("/api/baskets/" + round.row(name).path("id").asLong() + "/letters").json();
    }

    private static List<String> letters(TestRound round, String name) {
        List<String> letters = new ArrayList<>();
        ofBasket(round, name).path("letters").forEach(one -> letters.add((one.path("kind").asString() + " " + one.path("state").asString() + " " + one.path("trouble").asString()).strip()));
        return letters;
    }

    private static String next(TestRound round, String name) {
        JsonNode next = ofBasket(round, name).path("next");
        return next.path("reason").isNull() ? next.path("at").asString() + " " + next.path("kind").asString() : next.path("reason").asString();
    }

    private static List<String> ticks(TestRound round) {
        List<String> ticks = new ArrayList<>();
        round.desk.get("/api/rounds/" + round.id + "/letters").json().forEach(one -> ticks.add(one.path("kind").asString() + " " + one.path("at").asString() + " " + one.path("letters").asInt()
                + (one.path("planned").asBoolean() ? " planned" : "")));
        return ticks;
    }
}
