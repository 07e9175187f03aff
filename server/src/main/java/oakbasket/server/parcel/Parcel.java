package oakbasket.server.parcel;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import oakbasket.core.link.LinkWindow;
import oakbasket.core.parcel.ParcelState;
import oakbasket.core.parcel.ParcelTerms;
import oakbasket.core.reminder.ReminderStep;
import org.jspecify.annotations.Nullable;

/**
 * Files handed out together.
 *
 * @param accountId the coordinator who hands them out
 * @param days how long it can be taken away; null where an end is set
 * @param window from when to when; of a draft that is told in days, as if it were handed out when it was changed last
 * @param passcodeHash null when none is asked
 * @param mostPickUps how often each person may take each file away; null for as often as they want
 * @param keptDays for how many days after its end its files are kept
 * @param name the readable part of its addresses; empty when it has none
 * @param reminders when those are written to who have not taken everything away, counted from the day of its end
 * @param people who will get a link; of a draft only
 * @param open whether there is, or will be, a link for anybody who holds it
 * @param byLetter whether its people are written to when it is handed out
 * @param whenReady whether it is handed out by itself as soon as all files have come
 * @param roundId the round of the exchange whose files these are, which is never handed out as a parcel; null for every parcel that is one
 * @param wholeOffice whether everybody of the office sees it; what the others see of it is said in {@code sharing.Sharing}
 * @param version counts what coordinators change about it
 */
@RecordBuilder
@RecordBuilder.Options(builderMode = RecordBuilder.BuilderMode.STANDARD_AND_STAGED)
public record Parcel(long id, String title, String message, long accountId, Instant madeAt, @Nullable Instant handedOutAt, @Nullable Integer days, LinkWindow window, @Nullable Instant stoppedAt,
        @Nullable Instant purgedAt, @Nullable String passcodeHash, @Nullable Integer mostPickUps, int keptDays, String name, List<ReminderStep> reminders, List<TypedPerson> people, boolean open,
        boolean byLetter, boolean whenReady, @Nullable Long roundId, boolean wholeOffice, int version) {

    /** Somebody as typed. */
    public record TypedPerson(String name, String email) {
    }

    public Parcel {
        reminders = List.copyOf(reminders);
        people = List.copyOf(people);
    }

    /** On which terms it can be taken away. */
    public ParcelTerms terms() {
        return new ParcelTerms(handedOutAt, window, stoppedAt, purgedAt);
    }

    /** How it stands. */
    public ParcelState state(Instant now) {
        return ParcelState.of(terms(), now);
    }

    /** When its own files are destroyed, as far as is known now. */
    public Instant purgeAt() {
        return window.end().plus(Duration.ofDays(keptDays));
    }

    /** Its window if it were handed out now. */
    LinkWindow windowFrom(Instant now, ZoneId zone) {
        Integer wanted = days;
        Instant begins = window.beginsAt();
        return wanted == null ? new LinkWindow(now, begins, window.endsAt()) : LinkWindow.ofDays(now, begins != null && begins.isAfter(now) ? begins : null, wanted, zone);
    }
}
