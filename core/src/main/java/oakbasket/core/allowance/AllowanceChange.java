package oakbasket.core.allowance;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Optional;
import oakbasket.core.fault.Fault;
import org.jspecify.annotations.Nullable;

/** One thing a coordinator does to a basket, or to many at once. */
public sealed interface AllowanceChange {

    /** The longest reason or note in characters. */
    int LONGEST_TEXT = 500;

    /** Gives a deadline of its own: the end of a day. A null day takes it back. */
    record Extend(@Nullable LocalDate until, String reason) implements AllowanceChange {
        public Extend {
            reason = reason.strip();
        }
    }

    /** Excuses from everything, or asks again. */
    record ExcuseAll(boolean on) implements AllowanceChange {
    }

    /** Excuses one item, or asks for it again. */
    record ExcuseItem(long itemId, boolean on) implements AllowanceChange {
    }

    /** Stops chasing, or goes on. The link keeps working: papers are welcome at any time. */
    record Pause(boolean on) implements AllowanceChange {
    }

    /** Takes out of the round, or puts back. */
    record Remove(boolean on) implements AllowanceChange {
    }

    /** Sets the note for colleagues; empty takes it away. */
    record Note(String text) implements AllowanceChange {
        public Note {
            text = text.strip();
        }
    }

    /**
     * What keeps a change from being made; empty when nothing does.
     *
     * @param zone the round's zone, which says what day it is
     * @param deadline the last day of the round's own deadline
     */
    default Optional<Fault> fault(Instant now, ZoneId zone, LocalDate deadline) {
        if (this instanceof Extend extend && extend.until() != null) {
            if (extend.until().isBefore(LocalDate.ofInstant(now, zone)) || extend.until().getYear() > 9999) {
                return Optional.of(Fault.of("date", "extension-past"));
            }
            if (extend.until().isBefore(deadline)) {
                return Optional.of(Fault.of("date", "extension-before-deadline"));
            }
            if (extend.reason().isEmpty()) {
                return Optional.of(Fault.of("reason", "extension-reason"));
            }
        }
        String text = this instanceof Extend extend ? extend.reason() : this instanceof Note note ? note.text() : "";
        return text.length() <= LONGEST_TEXT ? Optional.empty()
                : Optional.of(Fault.of(this instanceof Note ? "text" : "reason", "longest", LONGEST_TEXT));
    }
}
