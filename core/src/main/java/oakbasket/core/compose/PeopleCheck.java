package oakbasket.core.compose;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import oakbasket.core.compose.RoundSheet.SheetPerson;
import oakbasket.core.contact.AddressSlip;
import oakbasket.core.fault.FaultyValue;
import oakbasket.core.fault.Remark;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;

/** Reads who is asked on a sheet: people by name, groups, or whoever has the open link. */
final class PeopleCheck {

    private static final int MOST_PEOPLE = 50_000;

    private final RoundSheet sheet;
    private final SheetContext context;
    private final Findings found;

    PeopleCheck(RoundSheet sheet, SheetContext context, Findings found) {
        this.sheet = sheet;
        this.context = context;
        this.found = found;
    }

    /** The people, each address once. */
    List<Person> read() {
        if (sheet.people().size() > MOST_PEOPLE) {
            found.error("people", "people-most", MOST_PEOPLE);
            return List.of();
        }
        Map<String, Person> people = new LinkedHashMap<>();
        for (int i = 0; i < sheet.people().size(); i++) {
            SheetPerson entry = sheet.people().get(i);
            try {
                Person person = new Person(entry.name().strip(), MailAddress.parse(entry.email()));
                if (!context.carried().test(person.address())) {
                    throw new FaultyValue(Remark.of("address-not-carried", person.address().text()));
                }
                people.putIfAbsent(person.address().key(), person);
            } catch (FaultyValue problem) {
                found.add(problem.at("people[" + i + "]"));
            }
        }
        sheet.groups().stream().filter(group -> !context.knows(group)).findFirst().ifPresent(group -> found.error("groups", "no-such-group", group));
        sheet.groups().stream().distinct().filter(context::isEmpty).forEach(group -> found.odd("groups", "group-empty", group));
        people.values().forEach(person -> AddressSlip.suggestion(person.address())
                .ifPresent(meant -> found.odd("people", "address-perhaps", person.address().text(), meant)));
        if (!sheet.peopleText().isBlank()) {
            found.error("peopleText", "lines-not-added");
        }
        somebody(people.isEmpty());
        return List.copyOf(people.values());
    }

    private void somebody(boolean nobodyByName) {
        if (!nobodyByName || sheet.openLink()) {
            return;
        }
        if (!sheet.groups().isEmpty() && sheet.groups().stream().allMatch(context::isEmpty)) {
            found.error("people", "groups-all-empty");
        } else if (sheet.groups().isEmpty() && !found.any("people")) {
            found.error("people", "people-missing");
        }
    }
}
