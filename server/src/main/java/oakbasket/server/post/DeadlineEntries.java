package oakbasket.server.post;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import net.fortuna.ical4j.model.Calendar;
import net.fortuna.ical4j.model.component.VEvent;
import net.fortuna.ical4j.model.property.DtStamp;
import net.fortuna.ical4j.model.property.Sequence;
import net.fortuna.ical4j.model.property.Uid;
import net.fortuna.ical4j.model.property.immutable.ImmutableMethod;
import net.fortuna.ical4j.model.property.immutable.ImmutableTransp;
import org.jspecify.annotations.Nullable;

/** Deadlines as entries of a calendar (RFC 5545), such as go along with a letter. A later letter about the same basket changes the entry that the first one made. */
final class DeadlineEntries {

    /**
     * A deadline.
     *
     * @param day the zone in which it is the whole day; null where it is the moment
     */
    record Entry(long basketId, String title, Instant deadline, @Nullable ZoneId day) {
    }

    private static final int SECONDS_OF_A_STEP = 60;

    private DeadlineEntries() {
    }

    /**
     * The entries as one iCalendar object.
     *
     * @param sender the address of the office, whose domain makes ids unique
     */
    static String of(List<Entry> entries, String sender, Instant now) {
        Calendar calendar = new Calendar().withProdId("-//Oak Basket//Deadlines//EN").withDefaults().withProperty(ImmutableMethod.PUBLISH).getFluentTarget();
        for (Entry entry : entries) {
            ZoneId day = entry.day();
            VEvent event = day == null ? new VEvent(entry.deadline(), entry.title()) : new VEvent(LocalDate.ofInstant(entry.deadline(), day), entry.title());
            event.replace(new DtStamp(now));
            event.add(new Uid("deadline-" + entry.basketId() + sender.substring(sender.lastIndexOf('@'))));
            event.add(new Sequence((int) (now.getEpochSecond() / SECONDS_OF_A_STEP)));
            // It keeps nobody from other things.
            event.add(ImmutableTransp.TRANSPARENT);
            calendar.add(event);
        }
        return calendar.toString();
    }
}
