package oakbasket.core.contact;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Predicate;
import oakbasket.core.fault.Fault;
import oakbasket.core.fault.FaultyValue;
import oakbasket.core.fault.Remark;
import oakbasket.core.identity.MailAddress;
import org.jspecify.annotations.Nullable;

/**
 * What importing some rows would do, line by line. Lines are taken in their order: one that repeats an address met before is judged against what that
 * line leaves. An empty cell never empties a field, and groups are only added.
 */
public record ImportPlan(List<Line> lines) {

    /** What would become of a line. */
    public enum Verdict { ADDED, CHANGED, UNCHANGED, REFUSED }

    /**
     * One line.
     *
     * @param number its number in the file, from 1
     * @param key identifies the mailbox; empty when refused
     * @param result the contact as it would be afterwards; null when refused
     * @param changes the fields that would change, for {@code CHANGED}
     * @param reason why it is refused; none otherwise
     * @param remarks what is odd about it, such as a probable slip
     */
    public record Line(int number, Verdict verdict, String key, @Nullable ContactFields result, List<String> changes, Remark reason, List<Remark> remarks) {
    }

    /** One row to be imported, and its line number. */
    public record Row(int number, ContactFields fields) {
    }

    /**
     * Judges rows.
     *
     * @param known the contacts there are, by the key of their mailbox
     * @param carried whether mail to an address is carried by the mail server that is set
     */
    public static ImportPlan of(List<Row> rows, Map<String, ContactFields> known, Predicate<MailAddress> carried) {
        Map<String, ContactFields> state = new HashMap<>(known);
        Map<String, String> people = new HashMap<>();
        known.forEach((key, fields) -> people.putIfAbsent(SamePerson.key(fields.name(), fields.organisation()), fields.email()));
        return new ImportPlan(rows.stream().map(row -> judge(row, state, people, carried)).toList());
    }

    /** How many lines have a verdict. */
    public int count(Verdict verdict) {
        return (int) lines.stream().filter(line -> line.verdict() == verdict).count();
    }

    private static Line judge(Row row, Map<String, ContactFields> state, Map<String, String> people, Predicate<MailAddress> carried) {
        ContactFields typed = row.fields();
        MailAddress address;
        try {
            address = MailAddress.parse(typed.email());
        } catch (FaultyValue problem) {
            return new Line(row.number(), Verdict.REFUSED, "", null, List.of(), problem.reason(), List.of());
        }
        if (!carried.test(address)) {
            return new Line(row.number(), Verdict.REFUSED, "", null, List.of(), Remark.of("address-not-carried", address.text()), List.of());
        }
        List<Remark> remarks = new ArrayList<>();
        AddressSlip.suggestion(address).ifPresent(meant -> remarks.add(Remark.of("perhaps-meant", meant)));
        ContactFields before = state.get(address.key());
        ContactFields named = before == null && typed.name().isEmpty() ? withName(typed, address, remarks) : typed;
        ContactFields after = before == null ? named : withEmail(named, before.email()).over(before);
        List<Fault> faults = after.faults();
        if (!faults.isEmpty()) {
            return new Line(row.number(), Verdict.REFUSED, "", null, List.of(), faults.get(0).remark(), remarks);
        }
        List<String> changes = before == null ? List.of() : changes(before, after);
        state.put(address.key(), after);
        String same = people.putIfAbsent(SamePerson.key(after.name(), after.organisation()), after.email());
        if (before == null && same != null) {
            remarks.add(Remark.of("same-person-as", same));
        }
        Verdict verdict = before == null ? Verdict.ADDED : changes.isEmpty() ? Verdict.UNCHANGED : Verdict.CHANGED;
        return new Line(row.number(), verdict, address.key(), after, changes, Remark.NONE, List.copyOf(remarks));
    }

    private static ContactFields withName(ContactFields typed, MailAddress address, List<Remark> remarks) {
        String name = address.text().substring(0, address.text().lastIndexOf('@'));
        remarks.add(Remark.of("named-for-now", name));
        return new ContactFields(name, typed.email(), typed.organisation(), typed.reference(), typed.language(), typed.zone(), typed.notes(), typed.groups());
    }

    private static ContactFields withEmail(ContactFields typed, String email) {
        return new ContactFields(typed.name(), email, typed.organisation(), typed.reference(), typed.language(), typed.zone(), typed.notes(), typed.groups());
    }

    private static List<String> changes(ContactFields before, ContactFields after) {
        List<String> changes = new ArrayList<>();
        note(changes, "name", before.name(), after.name());
        note(changes, "organisation", before.organisation(), after.organisation());
        note(changes, "reference", before.reference(), after.reference());
        note(changes, "language", before.language(), after.language());
        note(changes, "zone", before.zone(), after.zone());
        note(changes, "notes", before.notes(), after.notes());
        note(changes, "groups", String.join("; ", before.groups()), String.join("; ", after.groups()));
        return changes;
    }

    private static void note(List<String> changes, String field, String before, String after) {
        if (!before.equals(after)) {
            changes.add(field);
        }
    }
}
