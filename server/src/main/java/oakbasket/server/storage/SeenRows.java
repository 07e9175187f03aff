package oakbasket.server.storage;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What may be seen of each table that holds something of a round: a named part of SQL that every question writes instead of the table, such as {@code FROM seen_basket b}. It stands for the whole table where everything may be
 * seen, and for the rows that may be seen otherwise; whoever was not named at all sees no table. So a list, a count, a search and a question for one id all keep to it, and a question that names such a table itself is refused.
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
    private static final String OF_LINKS = """
            id NOT IN (SELECT n.act_id FROM link_act_link n WHERE n.link_id IN (SELECT z.id FROM link z WHERE z.round_id IN (HIDDEN)))""";
    private static final String OF_REMOVED = """
            (file_id NOT IN (SELECT z.id FROM received_file z WHERE z.round_id IN (HIDDEN)) AND file_id NOT IN (SELECT z.id FROM removed_file z WHERE z.round_id IN (HIDDEN)))""";
    /** A letter that also speaks of another round tells of the hidden one too. */
    private static final String OF_LETTER = """
            (id NOT IN (SELECT z.letter_id FROM letter_basket z WHERE z.round_id IN (HIDDEN))
            AND (parcel_link_id IS NULL OR parcel_link_id NOT IN (SELECT w.id FROM parcel_link w WHERE w.parcel_id IN (PARCELS))))""";
    private static final String OF_FILE_OR_NONE = """
            (file_id IS NULL OR file_id NOT IN (SELECT z.id FROM received_file z WHERE z.round_id IN (HIDDEN)))""";

    /** A parcel is shared itself; what holds a file of a round is seen by those who see that round, and by whoever made it. */
    private static final String PARCEL = """
            ((round_id IS NULL OR round_id NOT IN (HIDDEN)) AND (account_id = %1$d OR (whole_office OR id IN (SHARED)) AND id NOT IN (PRIVATE)))""";
    private static final String SHARED = """
            SELECT z.parcel_id FROM parcel_share z WHERE z.account_id = %1$d""";
    private static final String PRIVATE = """
            SELECT z.parcel_id FROM parcel_file z WHERE z.received_file_id IN (SELECT f.id FROM received_file f WHERE f.round_id IN (HIDDEN))""";
    private static final String HIDDEN_PARCELS = """
            SELECT q.id FROM parcel q WHERE q.round_id IN (HIDDEN) OR q.account_id <> %1$d AND (NOT q.whole_office AND q.id NOT IN (SHARED) OR q.id IN (PRIVATE))""";
    /** A series is shared like the round it was made of. */
    private static final String SERIES = """
            (whole_office OR account_id = %1$d OR id IN (SELECT z.series_id FROM series_share z WHERE z.account_id = %1$d))""";
    private static final String OF_PARCEL = """
            parcel_id NOT IN (PARCELS)""";

    private static final Map<String, String> CONDITIONS = conditions();
    static final String TABLES = String.join("|", CONDITIONS.keySet());
    private static final Pattern SEEN = Pattern.compile("\\bseen_(" + TABLES + ")\\b");
    private static final Pattern CHANGE = Pattern.compile("^\\s*(?:UPDATE|DELETE\\s+FROM)\\s+(" + TABLES + ")\\b");
    private static final String WHERE = "WHERE";
    private static final Pattern ANY_TABLE = Pattern.compile("\\b(?:FROM|JOIN|INTO|UPDATE)\\s+(?:seen_)?(?:" + TABLES + ")\\b");
    private static final Pattern WHOLE_TABLE = Pattern.compile("(?<!DELETE )\\b(?:FROM|JOIN)\\s+(?:" + TABLES + ")\\b");

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
        all.put("round_series", SERIES);
        all.put("file_removal", OF_REMOVED);
        all.put("link_act", OF_LINKS);
        all.put("letter", OF_LETTER);
        all.put("disk_finding", OF_FILE_OR_NONE);
        all.replaceAll((table, condition) -> condition.replace("PARCELS", HIDDEN_PARCELS).replace("PRIVATE", PRIVATE).replace("SHARED", SHARED).replace("HIDDEN", HIDDEN));
        return all;
    }

    /** A question or a change as the database gets it where everything may be seen. */
    static String everything(String sql) {
        return SEEN.matcher(sql).replaceAll("$1");
    }

    /**
     * The same for whoever does not see some rounds.
     *
     * @throws IllegalStateException when it reads a table that has a part to be seen without going through that; what locks a row has seen it before
     */
    static String of(String sql, long account) {
        if (WHOLE_TABLE.matcher(sql).find() && !sql.contains("FOR UPDATE")) {
            throw new IllegalStateException("Not everybody may see all of this: " + sql);
        }
        String kept = SEEN.matcher(sql).replaceAll(found -> Matcher.quoteReplacement(rows(found.group(1), account)));
        Matcher change = CHANGE.matcher(kept);
        return change.find() ? changing(kept, change.group(1), account) : kept;
    }

    /** What changes or removes rows leaves those alone that are not seen, whatever was asked before. */
    private static String changing(String sql, String table, long account) {
        int where = where(sql);
        return sql.substring(0, where) + " (" + Known.in(CONDITIONS, table).formatted(account) + ") AND (" + sql.substring(where) + ")";
    }

    /** Where the condition of a change begins, outside of all brackets. */
    private static int where(String sql) {
        int depth = 0;
        for (int at = 0; at + WHERE.length() <= sql.length(); at++) {
            char next = sql.charAt(at);
            depth += next == '(' ? 1 : next == ')' ? -1 : 0;
            if (depth == 0 && sql.startsWith(WHERE, at) && Character.isWhitespace(sql.charAt(at - 1))) {
                return at + WHERE.length();
            }
        }
        throw new IllegalStateException("Not everybody may change all of this: " + sql);
    }

    private static String rows(String table, long account) {
        return "(SELECT * FROM " + table + " WHERE " + Known.in(CONDITIONS, table).formatted(account) + ")";
    }

    /** Whether it touches anything that not all may see. */
    static boolean touched(String sql) {
        return ANY_TABLE.matcher(sql).find();
    }
}
