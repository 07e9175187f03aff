package oakbasket.core.identity;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import oakbasket.core.fault.FaultyValue;
import oakbasket.core.fault.Remark;

/**
 * Reads people from typed or pasted lines: {@code Name <address>}, a bare address, or a name and an address parted by a tab, comma or
 * semicolon in either order; several {@code Name <address>} may share a line. The same address twice is one person.
 *
 * @param people the people found, in the order of their first line
 * @param refused the lines nobody could be read from
 * @param merged how many entries repeated an address already seen
 */
public record PeopleLines(List<Person> people, List<Refused> refused, int merged) {

    /**
     * A line that was refused.
     *
     * @param line its number, from 1
     * @param text as typed
     * @param reason for the person who typed it
     */
    public record Refused(int line, String text, Remark reason) {
    }

    private static final Pattern NAMED = Pattern.compile("([^<>]*)<([^<>]*)>\\s*[,;]?");
    private static final int LONGEST_LINE = 10_000;

    /** Reads all lines; empty ones are passed over. */
    public static PeopleLines parse(String text) {
        Map<String, Person> people = new LinkedHashMap<>();
        List<Refused> refused = new ArrayList<>();
        int entries = 0;
        int number = 0;
        for (String line : text.split("\\R", -1)) {
            number++;
            if (line.isBlank()) {
                continue;
            }
            try {
                List<Person> here = entries(line);
                entries += here.size();
                for (Person person : here) {
                    people.merge(person.address().key(), person, PeopleLines::better);
                }
            } catch (FaultyValue problem) {
                refused.add(new Refused(number, line, problem.reason()));
            }
        }
        return new PeopleLines(List.copyOf(people.values()), List.copyOf(refused), entries - people.size());
    }

    private static List<Person> entries(String line) {
        if (line.length() > LONGEST_LINE) {
            throw new FaultyValue("line-long", line.length());
        }
        List<Person> found = new ArrayList<>();
        Matcher named = NAMED.matcher(line);
        int end = 0;
        // From where the last one ended, and no further: looking for it everywhere would take the square of the length.
        while (named.region(end, line.length()).lookingAt()) {
            found.add(person(named.group(1).strip(), named.group(2)));
            end = named.end();
        }
        if (!line.substring(end).isBlank()) {
            found.add(columns(line.substring(end)));
        }
        return found;
    }

    /** A line of columns: the one with the @ is the address, the others together the name. */
    private static Person columns(String line) {
        String address = "";
        List<String> name = new ArrayList<>();
        for (String column : line.split("[\\t;,]")) {
            if (column.contains("@") && address.isEmpty()) {
                address = column;
            } else if (!column.isBlank()) {
                name.add(column.strip());
            }
        }
        if (address.isEmpty()) {
            throw new FaultyValue("line-without-address");
        }
        return person(String.join(" ", name), address);
    }

    private static Person person(String name, String address) {
        MailAddress mail = MailAddress.parse(address);
        String plain = name.replaceAll("^[\"'“”]+|[\"'“”]+$", "").strip();
        return new Person(plain.isEmpty() ? mail.text().substring(0, mail.text().lastIndexOf('@')) : plain, mail);
    }

    /** Of two entries for one address, the one that came with a real name. */
    private static Person better(Person first, Person second) {
        return first.address().text().startsWith(first.name() + "@") ? second : first;
    }
}
