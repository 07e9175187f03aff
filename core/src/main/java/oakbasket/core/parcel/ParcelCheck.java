package oakbasket.core.parcel;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import oakbasket.core.fault.Fault;
import oakbasket.core.identity.Person;
import oakbasket.core.link.LinkWindow;
import oakbasket.core.link.Passcode;
import org.jspecify.annotations.Nullable;

/** What keeps a parcel from being kept, and what from being handed out. */
public final class ParcelCheck {

    /** The longest title in characters. */
    public static final int LONGEST_TITLE = 150;
    /** The longest message in characters. */
    public static final int LONGEST_MESSAGE = 4_000;
    /** The most files. */
    public static final int MOST_FILES = 10_000;
    /** The most people. */
    public static final int MOST_PEOPLE = 1_000;
    /** The longest name of a file in characters. */
    public static final int LONGEST_NAME = 255;
    /** The largest file in bytes: 1 TiB. */
    public static final long MOST_BYTES = 1L << 40;

    private ParcelCheck() {
    }

    /**
     * What was typed of a parcel.
     *
     * @param passcode empty for none, or where it stays as it is
     * @param mostPickUps how often each person may take each file away; null for as often as they want
     * @param people in the order typed
     */
    public record Typed(String title, String message, LinkWindow window, String passcode, @Nullable Integer mostPickUps, int keptDays, List<Person> people) {
    }

    /** What keeps it from being kept, field by field; a draft need not be complete. */
    public static List<Fault> faults(Typed typed, Instant now) {
        List<Fault> faults = new ArrayList<>();
        if (typed.title().length() > LONGEST_TITLE) {
            faults.add(Fault.of("title", "longest", LONGEST_TITLE));
        } else if (typed.title().chars().anyMatch(Character::isISOControl)) {
            faults.add(Fault.of("title", "one-line"));
        }
        if (typed.message().length() > LONGEST_MESSAGE) {
            faults.add(Fault.of("message", "longest", LONGEST_MESSAGE));
        }
        typed.window().fault(now).ifPresent(faults::add);
        Passcode.fault(typed.passcode()).ifPresent(faults::add);
        Integer most = typed.mostPickUps();
        if (most != null && (most < 1 || most > ParcelTerms.MOST_PICK_UPS)) {
            faults.add(Fault.of("mostPickUps", "link-number", ParcelTerms.MOST_PICK_UPS));
        }
        if (typed.keptDays() < 0 || typed.keptDays() > ParcelTerms.MOST_KEPT_DAYS) {
            faults.add(Fault.of("keptDays", "parcel-kept-days", ParcelTerms.MOST_KEPT_DAYS));
        }
        if (typed.people().size() > MOST_PEOPLE) {
            faults.add(Fault.of("people", "parcel-people", MOST_PEOPLE));
        }
        Set<String> seen = new HashSet<>();
        typed.people().stream().filter(person -> !seen.add(person.address().key())).findFirst().ifPresent(twice -> faults.add(Fault.of("people", "parcel-person-twice", twice.address().text())));
        return faults;
    }

    /**
     * What keeps it from being handed out.
     *
     * @param files how many it holds
     * @param missing the names of files that have not come whole, or cannot be handed out
     * @param open whether there is a link for anybody who holds it
     */
    public static List<Fault> faultsOfHandingOut(String title, int files, List<String> missing, int people, boolean open) {
        List<Fault> faults = new ArrayList<>();
        if (title.isBlank()) {
            faults.add(Fault.of("title", "parcel-title-missing"));
        }
        if (files == 0) {
            faults.add(Fault.of("files", "parcel-without-files"));
        }
        missing.stream().findFirst().ifPresent(first -> faults.add(Fault.of("files", "parcel-files-missing", missing.size(), first)));
        if (people == 0 && !open) {
            faults.add(Fault.of("people", "parcel-without-people"));
        }
        return faults;
    }
}
