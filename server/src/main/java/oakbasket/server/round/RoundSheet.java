package oakbasket.server.round;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What a coordinator composes, as typed: any part may still be missing or wrong, so that nothing typed is ever lost.
 *
 * @param peopleText pasted lines that could not be read yet
 * @param deadlineDate as {@code yyyy-MM-dd}
 * @param deadlineTime as {@code HH:mm}; empty means the end of the day
 * @param warningHours how long before the deadline a basket is due soon
 * @param openLink whether there is also an open link
 * @param passcode asked on the open link; empty means none
 */
public record RoundSheet(String title, String note, List<SheetItem> items, List<SheetPerson> people, String peopleText,
        String deadlineDate, String deadlineTime, String zone, Integer warningHours, Integer graceHours,
        String folderPattern, String namePattern, Boolean openLink, String passcode) {

    /**
     * An item as typed.
     *
     * @param kinds names of file kinds; empty means any
     * @param maxMebibytes the size limit in MiB
     */
    public record SheetItem(String title, String help, Boolean required, Integer minFiles, Integer maxFiles, List<String> kinds, Integer maxMebibytes) {
        public SheetItem {
            title = text(title);
            help = text(help);
            required = required == null || required;
            minFiles = number(minFiles, 1);
            maxFiles = number(maxFiles, 1);
            kinds = kinds == null ? List.of() : kinds;
            maxMebibytes = number(maxMebibytes, 50);
        }
    }

    /** A person as read from a line. */
    public record SheetPerson(String name, String email) {
        public SheetPerson {
            name = text(name);
            email = text(email);
        }
    }

    public RoundSheet {
        title = text(title);
        note = text(note);
        items = items == null ? List.of() : items;
        people = people == null ? List.of() : people;
        peopleText = text(peopleText);
        deadlineDate = text(deadlineDate);
        deadlineTime = text(deadlineTime);
        zone = text(zone);
        warningHours = number(warningHours, 72);
        graceHours = number(graceHours, 0);
        folderPattern = text(folderPattern);
        namePattern = text(namePattern);
        openLink = openLink != null && openLink;
        passcode = text(passcode);
    }

    /** The same sheet without its passcode, to be kept after opening. */
    RoundSheet withoutPasscode() {
        return new RoundSheet(title, note, items, people, peopleText, deadlineDate, deadlineTime, zone, warningHours, graceHours,
                folderPattern, namePattern, openLink, "");
    }

    private static String text(@Nullable String given) {
        return given == null ? "" : given;
    }

    private static Integer number(@Nullable Integer given, int otherwise) {
        return given == null ? otherwise : given;
    }
}
