package oakbasket.core.compose;

import java.time.DateTimeException;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import oakbasket.core.compose.RoundSheet.SheetLetters;
import oakbasket.core.compose.RoundSheet.SheetStep;
import oakbasket.core.deadline.WorkingDays;
import oakbasket.core.reminder.LetterPlan;
import oakbasket.core.reminder.QuietHours;
import oakbasket.core.reminder.ReminderPlan;
import oakbasket.core.reminder.ReminderStep;
import org.jspecify.annotations.Nullable;

/** Reads the part of a sheet that says which letters go. */
final class LettersCheck {

    private final SheetLetters typed;
    private final QuietHours quiet;
    private final Findings found;

    LettersCheck(SheetLetters typed, QuietHours quiet, Findings found) {
        this.typed = typed;
        this.quiet = quiet;
        this.found = found;
    }

    /** The plan; null when something is wrong with it. */
    @Nullable LetterPlan plan() {
        int before = found.count();
        if (typed.steps().size() > ReminderPlan.MOST_STEPS) {
            found.error("letters.steps", "steps-most", ReminderPlan.MOST_STEPS);
            return null;
        }
        List<ReminderStep> steps = new ArrayList<>();
        for (int i = 0; i < typed.steps().size(); i++) {
            step(typed.steps().get(i), "letters.steps[" + i + "].", steps);
        }
        boolean repeats = typed.repeatTimes() != 0;
        if (repeats && (typed.repeatTimes() < 0 || typed.repeatTimes() > ReminderPlan.MOST_REPEATS)) {
            found.error("letters.repeatTimes", "repeat-times", ReminderPlan.MOST_REPEATS);
        }
        if (repeats && (typed.repeatEvery() < 1 || typed.repeatEvery() > ReminderPlan.MOST_REPEAT_DAYS)) {
            found.error("letters.repeatEvery", "repeat-every", ReminderPlan.MOST_REPEAT_DAYS);
        }
        WorkingDays.Shift shift = typed.shift();
        if (found.count() > before || shift == null) {
            return null;
        }
        ReminderPlan.Repeat repeat = repeats && !steps.isEmpty() ? new ReminderPlan.Repeat(typed.repeatEvery(), typed.repeatTimes()) : null;
        return new LetterPlan(typed.invite(), typed.tellReturned(), typed.tellExtended(), typed.tellReceived(), typed.thank(), new ReminderPlan(steps, repeat, shift, quiet));
    }

    private void step(SheetStep step, String field, List<ReminderStep> steps) {
        LocalTime at = time(field + "at", step.at());
        ReminderStep.Unit unit = step.unit();
        if (Math.abs((long) step.days()) > ReminderStep.FARTHEST) {
            found.error(field + "days", "step-far", ReminderStep.FARTHEST);
        } else if (at != null && unit != null) {
            steps.add(new ReminderStep(step.days(), unit, at, step.lastCall()));
        }
    }

    private @Nullable LocalTime time(String field, String text) {
        try {
            LocalTime at = LocalTime.parse(text.strip());
            if (!quiet.at(at)) {
                return at;
            }
            found.error(field, "step-at-night", quiet.from().toString(), quiet.to().toString());
        } catch (DateTimeException unreadable) {
            found.error(field, "not-a-time-of-step");
        }
        return null;
    }
}
