package oakbasket.server.takeaway;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.StringReader;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import net.fortuna.ical4j.data.CalendarBuilder;
import net.fortuna.ical4j.model.Component;
import net.fortuna.ical4j.model.component.VEvent;
import org.junit.jupiter.api.Test;

class CalendarOutTest {

    private static final Instant NOW = Instant.parse("2026-06-01T09:00:00Z");

    /** Source: RFC 5545 §3.1 and §3.3.11, read back by ical4j: titles of every length and with every awkward character come back as they were. */
    @Test
    void whateverStandsInATitleComesBackAsItWas() throws Exception {
        Random random = new Random(5);
        String[] pieces = {"a", "long word ", "Ö", ",", ";", "\\", "\\n", ":", "\"", "\uD83C\uDF33", "  ", "日本"};
        List<CalendarOut.Entry> entries = new ArrayList<>();
        for (int i = 0; i < 300; i++) {
            StringBuilder title = new StringBuilder("t");
            for (int n = random.nextInt(60); n > 0; n--) {
                title.append(pieces[random.nextInt(pieces.length)]);
            }
            entries.add(new CalendarOut.Entry("key-" + i, i % 2 == 0 ? LocalDate.of(2026, 7, 1 + i % 28) : null, NOW.plusSeconds(i), title.append("t").toString(), "https://papers.example.org/rounds/" + i));
        }
        String written = CalendarOut.write("Office; of \\ the, Fenn", entries, NOW);
        assertThat(written.split("\r\n")).allMatch(line -> line.getBytes(StandardCharsets.UTF_8).length <= 75);
        assertThat(written.replace("\r\n", "")).doesNotContain("\r").doesNotContain("\n");
        List<VEvent> events = new ArrayList<>();
        new CalendarBuilder().build(new StringReader(written)).getComponents(Component.VEVENT).forEach(one -> events.add((VEvent) one));
        assertThat(events).hasSize(300);
        for (int i = 0; i < 300; i++) {
            assertThat(events.get(i).getSummary().getValue()).isEqualTo(entries.get(i).summary());
            assertThat(events.get(i).getUid().orElseThrow().getValue()).isEqualTo("key-" + i + "@oak-basket");
        }
    }

    @Test
    void anEventKeepsItsNameWhileItsTitleChanges() {
        CalendarOut.Entry before = new CalendarOut.Entry("deadline-7", null, NOW, "Deadline: Packs (5 of 9 still owe)", "u");
        CalendarOut.Entry after = new CalendarOut.Entry("deadline-7", null, NOW.plusSeconds(86_400), "Deadline: Packs (2 of 9 still owe)", "u");
        assertThat(uid(before)).isEqualTo(uid(after)).isEqualTo("UID:deadline-7@oak-basket");
    }

    private static String uid(CalendarOut.Entry entry) {
        return CalendarOut.write("x", List.of(entry), NOW).lines().filter(line -> line.startsWith("UID:")).findFirst().orElseThrow();
    }

    /** A line break in a title cannot begin a line of its own, so nobody can smuggle in an event. */
    @Test
    void aTitleCannotBringItsOwnLines() throws Exception {
        String evil = "x\r\nEND:VEVENT\r\nBEGIN:VEVENT\r\nSUMMARY:smuggled";
        String written = CalendarOut.write(evil, List.of(new CalendarOut.Entry("k", null, NOW, evil, "u")), NOW);
        assertThat(new CalendarBuilder().build(new StringReader(written)).getComponents(Component.VEVENT)).hasSize(1);
    }
}
