package oakbasket.server.storage;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import oakbasket.server.problem.Problem;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.support.JdbcTransactionManager;

/** Closed by default: who was not named sees and changes nothing, and no question goes past what may be seen. */
class SeenRowsTest {

    private static final Pattern WHOLE = Pattern.compile("(?<!DELETE )\\b(?:FROM|JOIN)\\s+(?:" + SeenRows.TABLES + ")\\b");

    /** Only what locks or changes a row, which was seen before, names the table itself. */
    @Test
    void noQuestionIsAskedOfAWholeTableThatNotEverybodySees() throws IOException {
        assertThat(WHOLE.matcher("SELECT 1 FROM seen_basket b JOIN link l ON TRUE").find()).as("it finds one").isTrue();
        List<String> found = new ArrayList<>();
        try (Stream<Path> all = Files.walk(Path.of("src/main/java"))) {
            for (Path source : all.filter(one -> one.toString().endsWith(".java") && !one.endsWith("SeenRows.java")).toList()) {
                for (String line : Files.readAllLines(source)) {
                    if (WHOLE.matcher(line).find() && !line.contains("FOR UPDATE") && !line.strip().startsWith("*") && !line.strip().startsWith("/")) {
                        found.add(source.getFileName() + ": " + line.strip());
                    }
                }
            }
        }
        assertThat(found).isEmpty();
    }

    @Test
    void aPartStandsForTheTableOrForWhatIsSeenOfIt() {
        String sql = "SELECT r.id FROM seen_round r JOIN seen_basket basket ON basket.round_id = r.id";
        assertThat(SeenRows.everything(sql)).isEqualTo("SELECT r.id FROM round r JOIN basket basket ON basket.round_id = r.id");
        assertThat(SeenRows.of(sql, 7)).startsWith("SELECT r.id FROM (SELECT * FROM round WHERE id NOT IN (").contains("asked_by <> 7").endsWith(") basket ON basket.round_id = r.id");
        assertThatThrownBy(() -> SeenRows.of("SELECT id FROM round WHERE id = ?", 7)).isInstanceOf(IllegalStateException.class);
        assertThat(SeenRows.of("SELECT * FROM submission WHERE id = ? FOR UPDATE", 7)).as("what locks has seen it").contains("FROM submission");
            }

    /** What is changed or removed is kept to what is seen too, whatever a service asked before. */
    @Test
    void whatIsNotSeenIsNotChanged() {
        assertThat(SeenRows.of("UPDATE round SET title = (SELECT MAX(x) FROM y WHERE z) WHERE id = ? OR id = ?", 7)).startsWith("UPDATE round SET title = (SELECT MAX(x) FROM y WHERE z) WHERE (id NOT IN (").endsWith(") AND ( id = ? OR id = ?)");
        assertThat(SeenRows.of("DELETE FROM removed_file WHERE id = ?", 7)).startsWith("DELETE FROM removed_file WHERE (round_id NOT IN (").endsWith(") AND ( id = ?)");
        assertThat(SeenRows.of("UPDATE account SET last_look = ? WHERE id = ?", 7)).as("what all may see").isEqualTo("UPDATE account SET last_look = ? WHERE id = ?");
        assertThatThrownBy(() -> SeenRows.of("DELETE FROM letter", 7)).isInstanceOf(IllegalStateException.class);
    }

    /** Reached only through a row of a table that has a part to be seen: by its number, which nobody is told who does not see that row. */
    private static final Set<String> THROUGH_ANOTHER = Set.of("basket_act_basket", "bell_look", "disk_seen", "file_copy", "file_crc", "file_mark", "file_notice", "inward_part", "link_act_link", "loose_file", "parcel_share", "pick_up",
            "plan_change_before", "refiling_step", "round_share", "upload", "waiting_file", "waiver");

    /** A new table inherits who may see it, or says here why it need not. */
    @Test
    void everyTableThatHoldsSomethingOfARoundOrAParcelHasItsPart() throws IOException {
        Map<String, String> tables = new TreeMap<>();
        try (Stream<Path> all = Files.list(Path.of("src/main/resources/db/migration"))) {
            for (Path one : all.sorted().toList()) {
                String sql = Files.readString(one);
                Pattern.compile("(?s)CREATE TABLE (\\w+) \\((.*?)\\n\\);").matcher(sql).results().forEach(found -> tables.put(found.group(1), found.group(2)));
                Pattern.compile("ALTER TABLE (\\w+) ADD (?:COLUMN )?(\\w+)").matcher(sql).results().forEach(found -> tables.merge(found.group(1), "\n    " + found.group(2) + " ", String::concat));
            }
        }
        Pattern holds = Pattern.compile("\\n\\s+(?:round_id|basket_id|file_id|link_id|parcel_id|submission_id|letter_id|received_file_id)\\b");
        assertThat(tables.entrySet().stream().filter(table -> holds.matcher(table.getValue()).find()).map(Map.Entry::getKey).filter(table -> !Set.of(SeenRows.TABLES.split("\\|")).contains(table)))
                .containsExactlyInAnyOrderElementsOf(THROUGH_ANOTHER);
    }

    @ParameterizedTest
    @ValueSource(strings = {"SELECT COUNT(*) FROM seen_round r", "SELECT COUNT(*) FROM round", "UPDATE round SET version = 2", "DELETE FROM parcel", "INSERT INTO link (round_id) VALUES (1)"})
    void whoWasNotNamedSeesAndChangesNothing(String sql) {
        try (PlainDatabase database = new PlainDatabase()) {
            JdbcClient jdbc = JdbcClient.create(database.source);
            Acting.end();
            assertThatThrownBy(() -> jdbc.sql(sql).update()).isInstanceOf(IllegalStateException.class).hasMessageContaining("Nobody was named");
            assertThatThrownBy(() -> new Transactions(new JdbcTransactionManager(database.source), jdbc).quickly(() -> true)).isInstanceOf(IllegalStateException.class);
            assertThat(jdbc.sql("SELECT 1").query(Integer.class).single()).as("what all may see").isEqualTo(1);
            assertThatThrownBy(() -> Acting.as(new Acting.Who(7, false, true), () -> new Transactions(new JdbcTransactionManager(database.source), jdbc).quickly(() -> true))).isInstanceOf(Problem.class);
        }
    }

    /** An empty one in memory, behind what is tested. */
    private static final class PlainDatabase implements AutoCloseable {
        private final SeenRowsDataSource source;

        private PlainDatabase() {
            com.zaxxer.hikari.HikariDataSource pool = new com.zaxxer.hikari.HikariDataSource();
            pool.setJdbcUrl("jdbc:h2:mem:" + java.util.UUID.randomUUID());
            source = new SeenRowsDataSource(pool, org.mockito.Mockito.mock(DatabaseKeeper.class));
        }

        @Override
        public void close() {
            source.close();
        }
    }
}
