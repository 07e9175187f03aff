package oakbasket.core.reminder;

/**
 * Which letters a round sends by itself.
 *
 * @param invite whether everybody asked is sent their link
 * @param tellReturned whether somebody whose paper was returned is told
 * @param tellExtended whether somebody who was given more time is told; never null, though a plan of an earlier version does not say
 * @param tellReceived whether whoever sends something is sent the receipt; never null, though a plan of an earlier version does not say
 * @param thank whether whoever has sent everything is thanked; never null, as above
 * @param reminders when those who still owe are written to
 */
public record LetterPlan(boolean invite, boolean tellReturned, Boolean tellExtended, Boolean tellReceived, Boolean thank, ReminderPlan reminders) {

    /** Nothing is sent unless a coordinator sends it. */
    public static final LetterPlan NONE = new LetterPlan(false, false, false, false, false, ReminderPlan.NONE);

    public LetterPlan {
        tellExtended = tellExtended != null && tellExtended;
        tellReceived = tellReceived != null && tellReceived;
        thank = thank != null && thank;
    }
}
