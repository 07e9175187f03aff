package oakbasket.server;

import java.util.List;
import tools.jackson.databind.JsonNode;

/** A tile as a reader of the API has it, by the description of the numbers alone. */
record ReadTile(String standing, boolean late, boolean overdue, int files) {

    private static final List<String> STANDINGS = List.of("NOT_OWED", "WAIVED", "RETURNED", "ACCEPTED", "ARRIVED", "PART", "WANTED");

    static ReadTile of(JsonNode row, int item) {
        int code = row.path("tiles").get(item).asInt();
        return new ReadTile(STANDINGS.get(code & 7), (code & 8) != 0, (code & 16) != 0, code >> 5);
    }
}
