package oakbasket.core.compose;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import oakbasket.core.deadline.LocalDeadline;
import oakbasket.core.identity.Person;
import oakbasket.core.reminder.LetterPlan;
import org.jspecify.annotations.Nullable;

/** A sheet without faults, ready to be opened. */
@RecordBuilder
@RecordBuilder.Options(builderMode = RecordBuilder.BuilderMode.STANDARD_AND_STAGED)
public record RoundPlan(String title, String note, List<PlannedItem> items, List<Person> people, List<String> groups, LocalDeadline deadline, Duration warning, Duration grace,
        @Nullable LocalDeadline closing, @Nullable LocalDate keepUntil, @Nullable Long calendarId, String folderPattern, String namePattern, boolean openLink, String passcode, boolean takesActive, LetterPlan letters) {

    /** When links shut by themselves; null when they do not. */
    public @Nullable Instant closesAt() {
        return closing == null ? null : closing.instant();
    }
}
