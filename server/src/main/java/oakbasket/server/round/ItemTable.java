package oakbasket.server.round;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import oakbasket.core.arrival.Archives;
import oakbasket.core.arrival.ArrivalPlan;
import oakbasket.core.arrival.Unchecked;
import oakbasket.core.compose.PlannedItem;
import oakbasket.core.filekind.FileKind;
import oakbasket.core.round.ItemSpec;
import oakbasket.server.storage.IdChunks;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.jdbc.core.simple.JdbcClient.StatementSpec;
import org.springframework.stereotype.Repository;

/** All SQL of the table checklist_item. The column {@code position} orders the items; the number that strangers know is the id's rank among all of the round. */
@Repository
class ItemTable {

    private final JdbcClient jdbc;

    ItemTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void insert(long roundId, int position, PlannedItem item) {
        with(jdbc.sql("""
                INSERT INTO checklist_item (round_id, position, title, help, required, min_files, max_files, kinds, max_bytes, owed_by, form_id, archives, unchecked)
                VALUES (:round, :position, :title, :help, :required, :min, :max, :kinds, :bytes, :owedBy, :form, :archives, :unchecked)"""), position, item).param("round", roundId).update();
    }

    void update(long id, int position, PlannedItem item) {
        with(jdbc.sql("""
                UPDATE checklist_item SET position = :position, title = :title, help = :help, required = :required, min_files = :min, max_files = :max, kinds = :kinds,
                    max_bytes = :bytes, owed_by = :owedBy, form_id = :form, archives = :archives, unchecked = :unchecked WHERE id = :id"""), position, item).param("id", id).update();
    }

    /** Moves the positions of a round out of the way, so that items can change places under their unique positions. */
    void clearPositions(long roundId) {
        jdbc.sql("UPDATE checklist_item SET position = -id WHERE round_id = :round").param("round", roundId).update();
    }

    void remove(long id, Instant at) {
        jdbc.sql("UPDATE checklist_item SET removed_at = :at WHERE id = :id").param("at", at).param("id", id).update();
    }

    /** The items that were not removed, in their order. */
    List<Item> ofRound(long roundId) {
        return ofRounds(List.of(roundId)).getOrDefault(roundId, List.of());
    }

    /** The items of rounds that were not removed, each list in its order, by the round. */
    Map<Long, List<Item>> ofRounds(Collection<Long> roundIds) {
        Map<Long, List<Item>> items = new HashMap<>();
        IdChunks.ask(roundIds, some -> {
            jdbc.sql("""
                    SELECT * FROM (SELECT i.*, ROW_NUMBER() OVER (PARTITION BY round_id ORDER BY id) AS number FROM seen_checklist_item i WHERE round_id = ANY(?))
                    WHERE removed_at IS NULL ORDER BY position""").param(some)
                    .query(row -> {
                        items.computeIfAbsent(row.getLong("round_id"), id -> new ArrayList<>()).add(item(row));
                    });
            return List.of();
        });
        return items;
    }

    private static Item item(ResultSet row) throws SQLException {
        return new Item(row.getLong("id"), row.getInt("number"),
                new ItemSpec(row.getString("title"), row.getString("help"), row.getBoolean("required"), row.getInt("min_files"),
                        row.getInt("max_files"), kinds(row.getString("kinds")), row.getLong("max_bytes"),
                        new ArrivalPlan(Archives.valueOf(row.getString("archives")), Unchecked.valueOf(row.getString("unchecked")))),
                lines(row.getString("owed_by")), row.getObject("form_id", Long.class));
    }

    /** The title of an item, also of one that was removed. */
    String title(long id) {
        return jdbc.sql("SELECT title FROM seen_checklist_item checklist_item WHERE id = :id").param("id", id).query(String.class).single();
    }

    /** The titles of items, also of those that were removed. */
    Map<Long, String> titles(Collection<Long> ids) {
        Map<Long, String> titles = new HashMap<>();
        IdChunks.ask(ids, some -> {
            jdbc.sql("SELECT id, title FROM seen_checklist_item checklist_item WHERE id = ANY(?)").param(some).query(row -> {
                titles.put(row.getLong("id"), row.getString("title"));
            });
            return List.of();
        });
        return titles;
    }

    private static StatementSpec with(StatementSpec statement, int position, PlannedItem item) {
        ItemSpec spec = item.spec();
        return statement.param("position", position).param("title", spec.title()).param("help", spec.help()).param("required", spec.required())
                .param("min", spec.minFiles()).param("max", spec.maxFiles())
                .param("kinds", spec.kinds().stream().sorted().map(Enum::name).collect(Collectors.joining(","))).param("bytes", spec.maxBytes())
                .param("owedBy", String.join("\n", item.owedBy())).param("form", item.formId())
                .param("archives", spec.arrival().archives().name()).param("unchecked", spec.arrival().unchecked().name());
    }

    private static Set<FileKind> kinds(String names) {
        return names.isEmpty() ? Set.of() : Arrays.stream(names.split(",")).map(FileKind::valueOf).collect(Collectors.toSet());
    }

    private static List<String> lines(String text) {
        return text.isEmpty() ? List.of() : List.of(text.split("\n"));
    }
}
