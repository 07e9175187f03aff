package oakbasket.server.lettersetting;

import java.time.Duration;
import java.time.LocalTime;
import oakbasket.core.reminder.QuietHours;

/**
 * What all letters of the office have in common.
 *
 * @param signature stands below every letter; empty when none does
 * @param replyTo who reads answers; empty for the coordinator who asks
 * @param calendar whether deadlines go along as calendar entries (RFC 5545)
 * @param perMinute how many letters are handed over in a minute at most; 0 for as many as there are
 * @param gapHours how many hours lie at least between two letters to one person that nobody sent by hand
 * @param quietFrom local time from which nobody is written to, as {@code HH:mm}
 * @param quietTo local time until which nobody is; the same as {@code quietFrom} where letters go at any time
 * @param version a change names the version it was made from
 */
public record LetterSetting(String signature, String replyTo, boolean calendar, int perMinute, int gapHours, String quietFrom, String quietTo, int version) {

    /** The hours in which nobody is written to. */
    public QuietHours quiet() {
        return new QuietHours(LocalTime.parse(quietFrom), LocalTime.parse(quietTo));
    }

    /** The least time between two letters to one person that nobody sent by hand. */
    public Duration gap() {
        return Duration.ofHours(gapHours);
    }
}
