package oakbasket.server.round;

import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import oakbasket.core.filekind.FileKind;
import oakbasket.core.round.ItemSpec;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table checklist_item. */
@Repository
class ItemTable {

    private final JdbcClient jdbc;

    ItemTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    void insert(long roundId, int number, ItemSpec spec) {
        jdbc.sql("""
                INSERT INTO checklist_item (round_id, position, title, help, required, min_files, max_files, kinds, max_bytes)
                VALUES (:round, :position, :title, :help, :required, :min, :max, :kinds, :bytes)""")
                .param("round", roundId).param("position", number).param("title", spec.title()).param("help", spec.help())
                .param("required", spec.required()).param("min", spec.minFiles()).param("max", spec.maxFiles())
                .param("kinds", spec.kinds().stream().sorted().map(Enum::name).collect(Collectors.joining(","))).param("bytes", spec.maxBytes())
                .update();
    }

    List<Item> ofRound(long roundId) {
        return jdbc.sql("SELECT * FROM checklist_item WHERE round_id = :round ORDER BY position").param("round", roundId)
                .query((row, n) -> new Item(row.getLong("id"), row.getInt("position"),
                        new ItemSpec(row.getString("title"), row.getString("help"), row.getBoolean("required"), row.getInt("min_files"),
                                row.getInt("max_files"), kinds(row.getString("kinds")), row.getLong("max_bytes"))))
                .list();
    }

    private static Set<FileKind> kinds(String names) {
        return names.isEmpty() ? Set.of() : Arrays.stream(names.split(",")).map(FileKind::valueOf).collect(Collectors.toSet());
    }
}
