package oakbasket.core.contact;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/** What a column of an imported table can hold. */
public enum ContactColumn {
    NAME("name", "fullname", "displayname", "contact", "contactname", "person", "student", "studentname", "client", "clientname"),
    FIRST_NAME("firstname", "givenname", "forename", "first", "given"),
    LAST_NAME("lastname", "surname", "familyname", "last", "family"),
    EMAIL("email", "emailaddress", "mail", "mailaddress", "emails", "emailwork", "workemail", "eaddress"),
    ORGANISATION("organisation", "organization", "company", "firm", "employer", "institution", "school", "farm", "org"),
    REFERENCE("reference", "ref", "externalreference", "id", "number", "clientnumber", "clientid", "studentid", "studentnumber", "membernumber", "code", "externalid"),
    GROUPS("groups", "group", "class", "category", "categories", "tags", "district", "tier", "team"),
    LANGUAGE("language", "lang", "locale"),
    ZONE("zone", "timezone", "tz"),
    NOTES("notes", "note", "remarks", "remark", "comment", "comments"),
    /** Left out of the import. */
    NONE;

    private final Set<String> headers;

    ContactColumn(String... headers) {
        this.headers = Set.of(headers);
    }

    /** Whether the first row of a table names its columns: one cell is a known header, and none is an address. */
    public static boolean isHeader(List<String> firstRow) {
        return firstRow.stream().noneMatch(cell -> cell.contains("@")) && firstRow.stream().anyMatch(cell -> byHeader(cell) != NONE);
    }

    /** What each column holds, going by its header. Each meaning is given once, to the first column that claims it. */
    public static List<ContactColumn> byHeaders(List<String> headers) {
        Set<ContactColumn> taken = EnumSet.noneOf(ContactColumn.class);
        List<ContactColumn> columns = new ArrayList<>();
        for (String header : headers) {
            ContactColumn column = byHeader(header);
            columns.add(column == NONE || taken.add(column) ? column : NONE);
        }
        return columns;
    }

    /** What each column holds where no header says so: addresses by their sign, then name and organisation from the left. */
    public static List<ContactColumn> byContent(List<List<String>> sample) {
        int width = sample.stream().mapToInt(List::size).max().orElse(0);
        List<ContactColumn> columns = new ArrayList<>();
        List<ContactColumn> left = new ArrayList<>(List.of(NAME, ORGANISATION));
        boolean address = false;
        for (int i = 0; i < width; i++) {
            int column = i;
            long signs = sample.stream().filter(row -> column < row.size() && row.get(column).contains("@")).count();
            boolean text = sample.stream().anyMatch(row -> column < row.size() && row.get(column).chars().anyMatch(Character::isLetter));
            if (!address && signs * 2 > sample.size()) {
                columns.add(EMAIL);
                address = true;
            } else {
                columns.add(text && !left.isEmpty() ? left.remove(0) : NONE);
            }
        }
        return columns;
    }

    private static ContactColumn byHeader(String header) {
        String plain = header.toLowerCase(Locale.ROOT).replaceAll("[^\\p{L}]", "");
        for (ContactColumn column : values()) {
            if (column.headers.contains(plain)) {
                return column;
            }
        }
        return NONE;
    }

    /** The fields of one row, read by the meaning of its columns; cells beyond the columns are passed over. Groups are parted by semicolons or bars. */
    public static ContactFields read(List<ContactColumn> columns, List<String> row) {
        String first = cell(columns, row, FIRST_NAME);
        String last = cell(columns, row, LAST_NAME);
        String name = cell(columns, row, NAME);
        return new ContactFields(name.isEmpty() ? (first + " " + last).strip() : name, cell(columns, row, EMAIL), cell(columns, row, ORGANISATION),
                cell(columns, row, REFERENCE), cell(columns, row, LANGUAGE), cell(columns, row, ZONE), cell(columns, row, NOTES),
                List.of(cell(columns, row, GROUPS).split("[;|]")));
    }

    private static String cell(List<ContactColumn> columns, List<String> row, ContactColumn wanted) {
        int at = columns.indexOf(wanted);
        return at < 0 || at >= row.size() ? "" : CellGuard.plain(row.get(at).strip());
    }
}
