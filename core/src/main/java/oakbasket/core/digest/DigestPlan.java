package oakbasket.core.digest;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;

/** How often somebody is told of what has come. Nobody is told when nothing has. */
public enum DigestPlan {
    NEVER,
    /** As soon as a sending seems to be over. */
    AT_ONCE,
    HOURLY,
    /** In the morning. */
    DAILY;

    /** So long nothing more may come before a sending seems to be over. */
    public static final Duration PAUSE = Duration.ofMinutes(2);
    /** Whoever sends for longer is told of all the same. */
    public static final Duration LONGEST_WAIT = Duration.ofMinutes(10);
    /** When the day's letter goes, in the time of the office. */
    public static final LocalTime MORNING = LocalTime.of(8, 0);

    /**
     * Whether it is time to tell.
     *
     * @param toldAt when somebody was told last, or began to want to be
     * @param oldest when the oldest came that was not told
     * @param newest when the newest came
     * @param zone of the office
     */
    public boolean due(Instant toldAt, Instant oldest, Instant newest, Instant now, ZoneId zone) {
        return switch (this) {
            case NEVER -> false;
            case AT_ONCE -> !newest.plus(PAUSE).isAfter(now) || !oldest.plus(LONGEST_WAIT).isAfter(now);
            case HOURLY -> !toldAt.plus(Duration.ofHours(1)).isAfter(now);
            case DAILY -> !morningAfter(toldAt.atZone(zone)).isAfter(now);
        };
    }

    private static Instant morningAfter(ZonedDateTime told) {
        ZonedDateTime morning = told.toLocalDate().atTime(MORNING).atZone(told.getZone());
        return (morning.isAfter(told) ? morning : told.toLocalDate().plusDays(1).atTime(MORNING).atZone(told.getZone())).toInstant();
    }
}
