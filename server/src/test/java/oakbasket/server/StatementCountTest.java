package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.springframework.jdbc.core.simple.JdbcClient;

/** However many rounds, baskets, files, acts and letters there are, a page asks the database the same number of questions. H2 itself counts them. */
class StatementCountTest {

    private static final int LOOKS = 5;
    private final JdbcClient jdbc = RunningApp.bean(JdbcClient.class);

    @Test
    void thePagesOfTheDeskAskNoMoreQuestionsWhenThereIsMoreToShow() {
        TestRound first = new TestRound().onlyPeople("Stat One", "Stat Two").item("Map", false, 1, 9, 1).withOpenLink("").open();
        String email = first.row("Stat One").path("email").asString();
        happen(first, "Stat One", 1);
        long basket = first.row("Stat One").path("id").asLong();
        long contact = first.row("Stat One").path("contactId").asLong();
        List<String> pages = List.of("/api/rounds", "/api/today", "/api/rounds/" + first.id + "/board", "/api/rounds/" + first.id + "/to-check", "/api/baskets/" + basket,
                "/api/contacts/" + contact, "/api/contacts/" + contact + "/letters", "/api/letters", "/api/letters/coming", "/api/calendars", "/api/search?find=Stat");
        Map<String, Long> before = count(pages);
        for (int i = 0; i < 4; i++) {
            TestRound more = new TestRound().onlyPeople("Stat More").person("Stat One", email).item("Map", false, 1, 9, 1).withOpenLink("").open();
            happen(more, "Stat One", 2);
            happen(first, "Stat One", 1);
            assertThat(first.desk.post("/api/calendars", "{\"name\":\"Stat " + more.id + "\",\"weekend\":[\"SUNDAY\"],\"country\":\"\",\"region\":\"\"}").status()).isLessThan(300);
        }
        assertThat(count(pages)).isEqualTo(before);
        assertThat(before.values()).as("the counting counts: %s", before).allMatch(statements -> statements > 0 && statements < 40);
    }

    /** A file comes, something is done to the basket, a letter is sent. */
    private static void happen(TestRound round, String name, int files) {
        TestRound.Sender sender = round.personal(name).begin();
        for (int i = 0; i < files; i++) {
            assertThat(sender.send(2, "map" + i + ".txt", ("map " + System.nanoTime()).getBytes()).status()).isEqualTo(201);
        }
        sender.finish();
        assertThat(round.act("NOTE", name, "\"text\":\"note " + System.nanoTime() + "\"").status()).isEqualTo(200);
        assertThat(round.desk.post("/api/rounds/" + round.id + "/letters", "{\"baskets\":[" + round.row(name).path("id") + "]}").status()).isEqualTo(200);
    }

    private Map<String, Long> count(List<String> pages) {
        Map<String, Long> counted = new LinkedHashMap<>();
        pages.forEach(page -> counted.put(page, statements(page)));
        return counted;
    }

    /** The fewest of several looks: what the server does by itself meanwhile is none of this page. */
    private long statements(String page) {
        List<Long> counts = new ArrayList<>();
        for (int look = 0; look < LOOKS; look++) {
            jdbc.sql("SET QUERY_STATISTICS FALSE").update();
            jdbc.sql("SET QUERY_STATISTICS TRUE").update();
            Http.Answer answer = Http.desk().get(page);
            assertThat(answer.status()).as(answer.text()).isEqualTo(200);
            counts.add(jdbc.sql("""
                    SELECT COALESCE(SUM(execution_count), 0) FROM information_schema.query_statistics
                    WHERE sql_statement NOT LIKE '%query_statistics%' AND sql_statement NOT LIKE 'SET QUERY%' AND sql_statement NOT LIKE '%round_series%'""").query(Long.class).single());
        }
        return counts.stream().min(Long::compare).orElseThrow();
    }
}
