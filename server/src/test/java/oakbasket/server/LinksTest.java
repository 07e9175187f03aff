package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import oakbasket.server.security.Limits;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.jdbc.core.simple.JdbcClient;

/** Every reason a link refuses for, on links that were handed out before. The states themselves are set in the database, as later screens will. */
class LinksTest {

    private final TestRound round = new TestRound().open();
    private final TestRound.Sender ada = round.personal("Ada Brook").begin();

    /** Other tests ask for links that never were, too, from this same address. */
    @BeforeEach
    void nobodyHasGuessedBefore() {
        for (int n = 0; n < 10; n++) {
            RunningApp.bean(Limits.class).giveBack(Limits.Kind.UNKNOWN_LINK, "127.0.0.1");
        }
    }

    @AfterEach
    void setTheClockBack() {
        RunningApp.CLOCK.set(Instant.parse("2026-06-01T09:00:00Z"));
    }

    @ParameterizedTest(name = "{0}: {1} {2}")
    @CsvSource(delimiter = '|', value = {
        "paused_at = TIMESTAMP WITH TIME ZONE '2026-06-01 00:00:00+00' | 403 | link-paused",
        "withdrawn_at = TIMESTAMP WITH TIME ZONE '2026-06-01 00:00:00+00' | 404 | link-unknown",
        "begins_at = TIMESTAMP WITH TIME ZONE '2026-06-02 00:00:00+00' | 403 | link-not-begun",
        "ends_at = TIMESTAMP WITH TIME ZONE '2026-06-01 00:00:00+00' | 410 | link-closed",
        "use_limit = 0 | 410 | link-used-up"})
    void aLinkThatWasStoppedRefusesAtOnceAndReceivedFilesStay(String change, int status, String problem) {
        ada.send(1, "a.pdf", TestRound.pdf("before"));
        set(change);
        Http.Answer page = ada.page();
        assertThat(page.status()).isEqualTo(status);
        assertThat(page.problem()).isEqualTo(problem);
        if (!problem.equals("link-used-up")) {
            assertThat(ada.send(1, "b.pdf", TestRound.pdf("after")).problem()).as("but for a sending that is among the uses").isEqualTo(problem);
        }
        assertThat(ada.begin("", "").problem()).isEqualTo(problem);
        assertThat(round.row("Ada Brook").path("files").asInt()).isEqualTo(1);
    }

    @Test
    void aWithdrawnLinkCannotBeToldFromOneThatNeverWas() {
        set("withdrawn_at = TIMESTAMP WITH TIME ZONE '2026-06-01 00:00:00+00'");
        assertThat(ada.page().json()).isEqualTo(new TestRound.Sender("never-was").page().json());
    }

    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({"paused_at, 403", "withdrawn_at, 404"})
    void aBegunUploadStopsWithAPausedOrWithdrawnLink(String column, int status) {
        byte[] content = TestRound.pdf("half");
        String location = ada.create(1, "a.pdf", content.length).header("Location");
        ada.patch(location, 0, Arrays.copyOf(content, 4));
        set(column + " = TIMESTAMP WITH TIME ZONE '2026-06-01 00:00:00+00'");
        assertThat(ada.patch(location, 4, Arrays.copyOfRange(content, 4, content.length)).status()).isEqualTo(status);
        set(column + " = NULL");
        assertThat(ada.patch(location, 4, Arrays.copyOfRange(content, 4, content.length)).status()).as("nothing of it was lost").isEqualTo(204);
    }

    /** Common practice, no source: the longest life of a link is 180 days. */
    @Test
    void aLinkWithoutAnEndLives180Days() {
        Instant made = RunningApp.bean(JdbcClient.class).sql("SELECT created_at FROM link WHERE round_id = ? AND basket_id = ?").params(round.id, basket())
                .query(Instant.class).single();
        RunningApp.CLOCK.set(made.plus(Duration.ofDays(180)).minusSeconds(1));
        assertThat(ada.page().status()).isEqualTo(200);
        RunningApp.CLOCK.set(made.plus(Duration.ofDays(180)));
        assertThat(ada.page().problem()).isEqualTo("link-closed");
    }

    @Test
    void aUseIsCountedOncePerSubmissionThatBroughtSomething() {
        set("use_limit = 2");
        ada.send(1, "a.pdf", TestRound.pdf("1"));
        ada.send(1, "b.pdf", TestRound.pdf("2"));
        assertThat(ada.page().status()).as("two files of one submission are one use").isEqualTo(200);
        ada.begin();
        round.desk.post("/api/files/" + round.panel("Ada Brook").path("files").get(0).path("id").asLong() + "/review", "{\"from\":\"NONE\",\"to\":\"RETURNED\",\"reason\":\"blurred\"}");
        ada.send(1, "c.pdf", TestRound.pdf("3"));
        assertThat(ada.page().problem()).isEqualTo("link-used-up");
    }

    private void set(String change) {
        RunningApp.bean(JdbcClient.class).sql("UPDATE link SET " + change + " WHERE round_id = ? AND basket_id = ?").params(round.id, basket()).update();
    }

    private long basket() {
        return round.row("Ada Brook").path("id").asLong();
    }
}
