package oakbasket.core.reminder;

/**
 * Which letters a round sends by itself.
 *
 * @param invite whether everybody asked is sent their link
 * @param tellReturned whether somebody whose paper was returned is told
 * @param reminders when those who still owe are written to
 */
public record LetterPlan(boolean invite, boolean tellReturned, ReminderPlan reminders) {

    /** Nothing is sent unless a coordinator sends it. */
    public static final LetterPlan NONE = new LetterPlan(false, false, ReminderPlan.NONE);
}
