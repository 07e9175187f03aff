package oakbasket.core.contact;

import java.time.ZoneId;
import java.util.ArrayList;
import java.util.IllformedLocaleException;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import oakbasket.core.fault.Fault;
import oakbasket.core.fault.FaultyValue;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;

/**
 * What is known of a contact, as typed. Every text may be empty; {@link #faults()} says what cannot be kept.
 *
 * @param language a language tag of BCP 47, such as {@code cy}; empty when not known
 * @param zone an IANA zone; empty when not known
 * @param groups names of groups, without repetition
 */
public record ContactFields(String name, String email, String organisation, String reference, String language, String zone, String notes,
        List<String> groups) {

    /** The longest organisation in characters. */
    public static final int LONGEST_ORGANISATION = 200;
    /** The longest external reference in characters. */
    public static final int LONGEST_REFERENCE = 100;
    /** The longest notes in characters. */
    public static final int LONGEST_NOTES = 10_000;
    /** The longest name of a group in characters. */
    public static final int LONGEST_GROUP = 100;
    /** The most groups of one contact. */
    public static final int MOST_GROUPS = 50;

    public ContactFields {
        name = name.strip();
        email = email.strip();
        organisation = organisation.strip();
        reference = reference.strip();
        language = language.strip();
        zone = zone.strip();
        notes = notes.strip();
        Set<String> clean = new LinkedHashSet<>();
        groups.stream().map(String::strip).filter(group -> !group.isEmpty()).forEach(clean::add);
        groups = List.copyOf(clean);
    }

    /** What keeps these fields from being kept, for the person who typed them; empty when nothing does. */
    public List<Fault> faults() {
        List<Fault> faults = new ArrayList<>();
        try {
            MailAddress.parse(email);
        } catch (FaultyValue problem) {
            faults.add(problem.at("email"));
        }
        if (name.isEmpty() || longerOrBroken(name, Person.LONGEST_NAME)) {
            faults.add(name.isEmpty() ? Fault.of("name", "contact-name") : Fault.of("name", "longest-line", Person.LONGEST_NAME));
        }
        shorter(faults, "organisation", organisation, LONGEST_ORGANISATION);
        shorter(faults, "reference", reference, LONGEST_REFERENCE);
        if (notes.length() > LONGEST_NOTES) {
            faults.add(Fault.of("notes", "longest-has", LONGEST_NOTES, notes.length()));
        }
        if (!language.isEmpty() && !knownLanguage(language)) {
            faults.add(Fault.of("language", "not-a-language", brief(language)));
        }
        if (!zone.isEmpty() && !ZoneId.getAvailableZoneIds().contains(zone)) {
            faults.add(Fault.of("zone", "not-this-zone", brief(zone)));
        }
        if (groups.size() > MOST_GROUPS) {
            faults.add(Fault.of("groups", "most-groups", MOST_GROUPS));
        }
        groups.stream().filter(group -> longerOrBroken(group, LONGEST_GROUP)).findFirst().ifPresent(group -> faults.add(Fault.of("groups", "longest-line", LONGEST_GROUP)));
        return faults;
    }

    /** These fields with each empty one filled from older ones, and the groups of both. */
    public ContactFields over(ContactFields older) {
        List<String> both = new ArrayList<>(older.groups);
        both.addAll(groups);
        return new ContactFields(or(name, older.name), or(email, older.email), or(organisation, older.organisation), or(reference, older.reference),
                or(language, older.language), or(zone, older.zone), or(notes, older.notes), both);
    }

    private static boolean knownLanguage(String tag) {
        try {
            Locale locale = new Locale.Builder().setLanguageTag(tag).build();
            return !locale.getLanguage().isEmpty() && !locale.getDisplayLanguage(Locale.ENGLISH).equals(locale.getLanguage());
        } catch (IllformedLocaleException notATag) {
            return false;
        }
    }

    private static void shorter(List<Fault> faults, String field, String value, int most) {
        if (longerOrBroken(value, most)) {
            faults.add(Fault.of(field, "longest-line", most));
        }
    }

    private static boolean longerOrBroken(String value, int most) {
        return value.length() > most || value.chars().anyMatch(Character::isISOControl);
    }

    private static String or(String newer, String older) {
        return newer.isEmpty() ? older : newer;
    }

    private static String brief(String text) {
        return text.length() <= 40 ? text : text.substring(0, 40) + "…";
    }
}
