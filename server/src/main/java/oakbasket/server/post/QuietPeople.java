package oakbasket.server.post;

import java.time.LocalTime;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import oakbasket.core.fault.Fault;
import oakbasket.core.reminder.QuietHours;
import oakbasket.server.contact.Contacts;
import oakbasket.server.lettersetting.QuietTimes;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.Transactions;
import org.springframework.stereotype.Service;

/** Hours in which single people are not written to, where they are not the office's. */
@Service
class QuietPeople {

    private final ContactQuietTable table;
    private final Contacts contacts;
    private final Transactions transactions;

    QuietPeople(ContactQuietTable table, Contacts contacts, Transactions transactions) {
        this.table = table;
        this.contacts = contacts;
        this.transactions = transactions;
    }

    /** The hours of all who have their own. */
    Map<Long, QuietHours> all() {
        Map<Long, QuietHours> all = new HashMap<>();
        table.all().forEach(row -> all.put(row.contactId(), new QuietHours(LocalTime.parse(row.quietFrom()), LocalTime.parse(row.quietTo()))));
        return all;
    }

    /** Those of one person; empty texts where the office's hold. */
    QuietOfPerson of(long contactId) {
        contacts.byId(contactId);
        return table.of(contactId).orElseGet(() -> new QuietOfPerson(contactId, "", ""));
    }

    /**
     * Sets them.
     *
     * @param from and {@code to}, as {@code HH:mm}; both empty where the office's are to hold
     */
    QuietOfPerson set(long contactId, String from, String to) {
        contacts.byId(contactId);
        if (from.isEmpty() && to.isEmpty()) {
            transactions.durably(() -> table.remove(contactId));
            return of(contactId);
        }
        List<Fault> faults = new ArrayList<>();
        QuietTimes.check("quietFrom", from, faults);
        QuietTimes.check("quietTo", to, faults);
        if (!faults.isEmpty()) {
            throw Problem.fields(faults);
        }
        transactions.durably(() -> table.put(new QuietOfPerson(contactId, from, to)));
        return of(contactId);
    }
}
