package oakbasket.server.round;

import java.time.DateTimeException;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BiConsumer;
import oakbasket.core.deadline.WorkingDays;
import oakbasket.core.reminder.LetterPlan;
import oakbasket.core.reminder.QuietHours;
import oakbasket.core.reminder.ReminderPlan;
import oakbasket.core.reminder.ReminderStep;
import org.jspecify.annotations.Nullable;

/** Reads the part of a sheet that says which letters go, and says field by field what is wrong with it. */
final class LetterCheck {

    private static final int MOST_REPEAT_DAYS = 60;

    private final RoundSheet.SheetLetters typed;
    private final BiConsumer<String, String> error;
    private boolean faulty;

    LetterCheck(RoundSheet.SheetLetters typed, BiConsumer<String, String> error) {
        this.typed = typed;
        this.error = error;
    }

    /** The plan; null when something is wrong with it. */
    @Nullable LetterPlan plan() {
        if (typed.steps().size() > ReminderPlan.MOST_STEPS) {
            wrong("letters.steps", "A plan has at most " + ReminderPlan.MOST_STEPS + " steps");
            return null;
        }
        List<ReminderStep> steps = new ArrayList<>();
        for (int i = 0; i < typed.steps().size(); i++) {
            RoundSheet.SheetStep step = typed.steps().get(i);
            LocalTime at = time("letters.steps[" + i + "].at", step.at());
            if (Math.abs((long) step.days()) > ReminderStep.FARTHEST) {
                wrong("letters.steps[" + i + "].days", "At most " + ReminderStep.FARTHEST + " days from the deadline");
            } else if (at != null) {
                steps.add(new ReminderStep(step.days(), step.unit(), at));
            }
        }
        boolean repeats = typed.repeatTimes() != 0;
        if (repeats && (typed.repeatTimes() < 0 || typed.repeatTimes() > ReminderPlan.MOST_REPEATS)) {
            wrong("letters.repeatTimes", "At most " + ReminderPlan.MOST_REPEATS + " times; 0 for never");
        }
        if (repeats && (typed.repeatEvery() < 1 || typed.repeatEvery() > MOST_REPEAT_DAYS)) {
            wrong("letters.repeatEvery", "Every 1 to " + MOST_REPEAT_DAYS + " working days");
        }
        WorkingDays.Shift shift = typed.shift();
        if (faulty || shift == null) {
            return null;
        }
        ReminderPlan.Repeat repeat = repeats && !steps.isEmpty() ? new ReminderPlan.Repeat(typed.repeatEvery(), typed.repeatTimes()) : null;
        return new LetterPlan(typed.invite(), typed.tellReturned(), new ReminderPlan(steps, repeat, shift, QuietHours.NIGHT));
    }

    private @Nullable LocalTime time(String field, String text) {
        try {
            LocalTime at = LocalTime.parse(text.strip());
            if (!QuietHours.NIGHT.at(at)) {
                return at;
            }
            wrong(field, "Nobody is written to between " + QuietHours.NIGHT.from() + " and " + QuietHours.NIGHT.to());
        } catch (DateTimeException unreadable) {
            wrong(field, "Not a time; for example 09:00");
        }
        return null;
    }

    private void wrong(String field, String detail) {
        faulty = true;
        error.accept(field, detail);
    }
}
