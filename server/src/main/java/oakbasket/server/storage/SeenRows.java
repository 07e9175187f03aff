package oakbasket.server.storage;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Leaves the rows of rounds that somebody does not see out of everything they ask. Whatever question a service asks, each table that holds something of a round is
 * replaced by those of its rows that may be seen, so that a list, a count, a search and a question for one id all keep to it.
 */
final class SeenRows {

    private static final String HIDDEN = """
            SELECT x.id FROM round x WHERE NOT x.whole_office AND x.asked_by <> %1$d AND NOT EXISTS (SELECT 1 FROM round_share y WHERE y.round_id = x.id AND y.account_id = %1$d)""";
    private static final String OF_ROUND = """
            round_id NOT IN (HIDDEN)""";
    private static final String OF_ROUND_OR_NONE = """
            (round_id IS NULL OR round_id NOT IN (HIDDEN))""";
    private static final String OF_LINK = """
            link_id NOT IN (SELECT z.id FROM link z WHERE z.round_id IN (HIDDEN))""";
    /** A letter that also speaks of another round tells of the hidden one too. */
    private static final String OF_LETTER = """
            id NOT IN (SELECT z.letter_id FROM letter_basket z WHERE z.round_id IN (HIDDEN))""";
    private static final String OF_FILE_OR_NONE = """
            (file_id IS NULL OR file_id NOT IN (SELECT z.id FROM received_file z WHERE z.round_id IN (HIDDEN)))""";

    /** What holds a file of a round is seen by those who see that round, and by whoever made it. */
    private static final String PARCEL = """
            ((round_id IS NULL OR round_id NOT IN (HIDDEN)) AND (account_id = %1$d OR id NOT IN (PRIVATE)))""";
    private static final String PRIVATE = """
            SELECT z.parcel_id FROM parcel_file z WHERE z.received_file_id IN (SELECT f.id FROM received_file f WHERE f.round_id IN (HIDDEN))""";
    private static final String OF_PARCEL = """
            parcel_id NOT IN (SELECT q.id FROM parcel q WHERE q.round_id IN (HIDDEN) OR q.account_id <> %1$d AND q.id IN (PRIVATE))""";

    private static final Map<String, String> CONDITIONS = conditions();
    private static final Pattern TABLE = Pattern.compile("\\b(FROM|JOIN)\\s+(" + String.join("|", CONDITIONS.keySet()) + ")\\b(\\s+(?:AS\\s+)?([A-Za-z_]+))?");
    private static final Pattern READING = Pattern.compile("^\\s*(?:SELECT|WITH)\\b");
    /** What can follow a table that has no other name. */
    private static final Set<String> NO_NAME = Set.of("WHERE", "JOIN", "LEFT", "RIGHT", "INNER", "CROSS", "FULL", "ON", "ORDER", "GROUP", "HAVING", "FETCH", "OFFSET", "UNION", "LIMIT", "USING", "EXCEPT", "INTERSECT");

    private SeenRows() {
    }

    private static Map<String, String> conditions() {
        Map<String, String> all = new LinkedHashMap<>();
        all.put("round", "id NOT IN (HIDDEN)");
        List.of("checklist_item", "basket", "link", "received_file", "removed_file", "basket_act", "letter_basket", "letter_look", "held_file", "journal_entry", "refiling", "retention_hold", "plan_change",
                "frame_origin", "rule_set", "exchange").forEach(table -> all.put(table, OF_ROUND));
        all.put("inward_message", OF_ROUND_OR_NONE);
        all.put("parcel", PARCEL);
        List.of("parcel_file", "parcel_link", "parcel_act").forEach(table -> all.put(table, OF_PARCEL));
        List.of("submission", "refused_upload").forEach(table -> all.put(table, OF_LINK));
        all.put("letter", OF_LETTER);
        all.put("disk_finding", OF_FILE_OR_NONE);
        all.replaceAll((table, condition) -> condition.replace("PRIVATE", PRIVATE).replace("HIDDEN", HIDDEN));
        return all;
    }

    /**
     * The question with only the rows that an account may see. Only what reads is changed: whoever writes has read before what it writes to, and a row is locked
     * only after it was seen.
     */
    static String of(String sql, long account) {
        if (!READING.matcher(sql).find() || sql.contains("FOR UPDATE")) {
            return sql;
        }
        Matcher found = TABLE.matcher(sql);
        StringBuilder seen = new StringBuilder();
        while (found.find()) {
            String table = found.group(2);
            String next = found.group(4);
            boolean named = next != null && !NO_NAME.contains(next.toUpperCase(java.util.Locale.ROOT));
            String rows = found.group(1) + " (SELECT * FROM " + table + " WHERE " + Known.in(CONDITIONS, table).formatted(account) + ")" + (named ? "" : " " + table)
                    + (found.group(3) == null ? "" : found.group(3));
            found.appendReplacement(seen, Matcher.quoteReplacement(rows));
        }
        return found.appendTail(seen).toString();
    }
}
