package oakbasket.server.takeaway;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;

/** Writes events as an iCalendar object (RFC 5545): lines end with CR LF and are folded at 75 octets, text is escaped, and an event keeps its UID for life. */
final class CalendarOut {

    private static final int MOST_OCTETS = 75;
    private static final DateTimeFormatter UTC = DateTimeFormatter.ofPattern("yyyyMMdd'T'HHmmss'Z'", Locale.ROOT).withZone(ZoneOffset.UTC);
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("yyyyMMdd", Locale.ROOT);

    /**
     * An event.
     *
     * @param key tells it apart from all others, for its UID
     * @param day for an event of a whole day; null for one at an instant
     */
    record Entry(String key, @Nullable LocalDate day, Instant at, String summary, String url) {
    }

    private CalendarOut() {
    }

    static String write(String name, List<Entry> entries, Instant now) {
        StringBuilder out = new StringBuilder();
        line(out, "BEGIN:VCALENDAR");
        line(out, "VERSION:2.0");
        line(out, "PRODID:-//Oak Basket//Deadlines//EN");
        line(out, "CALSCALE:GREGORIAN");
        line(out, "X-WR-CALNAME:" + escaped(name));
        for (Entry entry : entries) {
            LocalDate day = entry.day();
            line(out, "BEGIN:VEVENT");
            line(out, "UID:" + entry.key() + "@oak-basket");
            line(out, "DTSTAMP:" + UTC.format(now));
            line(out, day == null ? "DTSTART:" + UTC.format(entry.at()) : "DTSTART;VALUE=DATE:" + DAY.format(day));
            line(out, "SUMMARY:" + escaped(entry.summary()));
            line(out, "URL:" + entry.url());
            line(out, "TRANSP:TRANSPARENT");
            line(out, "END:VEVENT");
        }
        line(out, "END:VCALENDAR");
        return out.toString();
    }

    private static String escaped(String text) {
        return text.replace("\\", "\\\\").replace(";", "\\;").replace(",", "\\,").replaceAll("\\R", "\\\\n").replaceAll("\\p{Cntrl}", " ");
    }

    /** One content line, folded so that no character is torn apart. */
    private static void line(StringBuilder out, String content) {
        int octets = 0;
        for (int i = 0; i < content.length(); i = content.offsetByCodePoints(i, 1)) {
            String character = content.substring(i, content.offsetByCodePoints(i, 1));
            int length = character.getBytes(StandardCharsets.UTF_8).length;
            if (octets + length > MOST_OCTETS) {
                out.append("\r\n ");
                octets = 1;
            }
            out.append(character);
            octets += length;
        }
        out.append("\r\n");
    }
}
