package oakbasket.core.allowance;

import java.time.LocalDate;
import java.time.ZoneId;
import java.time.Instant;
import java.util.Optional;
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

    /** What is wrong with one field of a change. */
    record Fault(String field, String detail) {
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
                return Optional.of(new Fault("date", "Choose today or a later day"));
            }
            if (extend.until().isBefore(deadline)) {
                return Optional.of(new Fault("date", "The round’s own deadline is later; choose that day or one after it"));
            }
            if (extend.reason().isEmpty()) {
                return Optional.of(new Fault("reason", "Say why, for whoever looks at this later"));
            }
        }
        String text = this instanceof Extend extend ? extend.reason() : this instanceof Note note ? note.text() : "";
        return text.length() <= LONGEST_TEXT ? Optional.empty()
                : Optional.of(new Fault(this instanceof Note ? "text" : "reason", "Use at most " + LONGEST_TEXT + " characters"));
    }
}
