package oakbasket.server.lettersetting;

import java.util.ArrayList;
import java.util.List;
import oakbasket.core.fault.Fault;
import oakbasket.core.fault.FaultyValue;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.server.brand.Brand;
import oakbasket.server.mail.MailReach;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.Transactions;
import org.springframework.stereotype.Service;

/** What all letters of the office have in common: the signature, who reads answers, and whether deadlines go along as calendar entries. */
@Service
public class LetterSettings {

    static final int LONGEST_SIGNATURE = 1_000;
    static final int MOST_PER_MINUTE = 60_000;
    /** Thirty days. */
    static final int MOST_GAP_HOURS = 720;
    /** What parts a signature from the letter (RFC 3676, 4.3). */
    private static final String SIGNATURE_MARK = "\n\n-- \n";

    private final LetterSettingTable table;
    private final Transactions transactions;
    private final Brand brand;
    private final MailReach reach;

    LetterSettings(LetterSettingTable table, Transactions transactions, Brand brand, MailReach reach) {
        this.reach = reach;
        this.brand = brand;
        this.table = table;
        this.transactions = transactions;
    }

    /** As they are set now. */
    public LetterSetting now() {
        return table.now();
    }

    /**
     * Changes them.
     *
     * @throws Problem with status 422 naming the field, or 409 when they were changed since
     */
    LetterSetting change(LetterSetting to) {
        String signature = to.signature().replaceAll("\\p{Co}", "").strip();
        String reply = to.replyTo().strip();
        if (signature.length() > LONGEST_SIGNATURE) {
            throw Problem.field("signature", "longest", LONGEST_SIGNATURE);
        }
        if (!reply.isEmpty()) {
            try {
                reach.needed(MailAddress.parse(reply));
            } catch (FaultyValue wrong) {
                throw Problem.fields(List.of(wrong.at("replyTo")));
            }
        }
        List<Fault> faults = new ArrayList<>();
        if (to.perMinute() < 0 || to.perMinute() > MOST_PER_MINUTE) {
            faults.add(Fault.of("perMinute", "between", 0, MOST_PER_MINUTE));
        }
        if (to.gapHours() < 0 || to.gapHours() > MOST_GAP_HOURS) {
            faults.add(Fault.of("gapHours", "between", 0, MOST_GAP_HOURS));
        }
        QuietTimes.check("quietFrom", to.quietFrom(), faults);
        QuietTimes.check("quietTo", to.quietTo(), faults);
        if (!faults.isEmpty()) {
            throw Problem.fields(faults);
        }
        if (transactions.durably(() -> table.change(new LetterSetting(signature, reply, to.calendar(), to.perMinute(), to.gapHours(), to.quietFrom(), to.quietTo(), to.version()))) != 1) {
            throw Problem.conflict("changed-elsewhere");
        }
        return table.now();
    }

    /** A letter with the signature below it. */
    public static String signed(LetterSetting setting, String body) {
        String signature = setting.signature();
        return signature.isEmpty() ? body : body.stripTrailing() + SIGNATURE_MARK + signature + "\n";
    }

    /**
     * Who reads answers to a letter for which this coordinator asks.
     *
     * @param collecting the address that collects papers for what the letter is about; empty where there is none
     */
    public Person replyTo(LetterSetting setting, Person coordinator, String collecting) {
        String reply = setting.replyTo().isEmpty() ? collecting : setting.replyTo();
        return reply.isEmpty() ? coordinator : new Person(brand.name(), MailAddress.parse(reply));
    }
}
