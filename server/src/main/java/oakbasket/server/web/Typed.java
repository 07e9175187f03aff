package oakbasket.server.web;

import java.time.DateTimeException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.ZoneId;
import oakbasket.core.deadline.LocalDeadline;
import oakbasket.core.fault.FaultyValue;
import oakbasket.core.link.ReadableName;
import oakbasket.server.problem.Problem;
import org.jspecify.annotations.Nullable;

/** What was typed into fields that several forms have. Each refusal names the field. */
public final class Typed {

    private Typed() {
    }

    /** What was typed, or the empty text. */
    public static String text(@Nullable String typed) {
        return typed == null ? "" : typed;
    }

    /** When something begins. @return null where no day was typed: at once */
    public static @Nullable Instant begin(@Nullable String day, @Nullable String time, ZoneId zone) {
        return text(day).isEmpty() ? null : new LocalDeadline(day("begins", text(day)), text(time).isEmpty() ? LocalTime.MIDNIGHT : time("begins", text(time)), zone).instant();
    }

    /** When something ends; a day alone means its end. */
    public static Instant end(@Nullable String day, @Nullable String time, ZoneId zone) {
        return new LocalDeadline(day("ends", text(day)), text(time).isEmpty() ? null : time("ends", text(time)), zone).instant();
    }

    private static LocalDate day(String field, String typed) {
        try {
            return LocalDate.parse(typed);
        } catch (DateTimeException notADate) {
            throw Problem.field(field, "not-a-date");
        }
    }

    /** A time of the day. */
    public static LocalTime time(String field, String typed) {
        try {
            return LocalTime.parse(typed);
        } catch (DateTimeException notATime) {
            throw Problem.field(field, "not-a-time");
        }
    }

    /** The readable part of an address. */
    public static String readableName(@Nullable String typed) {
        try {
            return ReadableName.of(text(typed));
        } catch (FaultyValue fault) {
            throw Problem.refused("fields").at(fault.at("name"));
        }
    }
}
