package oakbasket.server.post;

import java.util.List;
import oakbasket.core.fault.FaultyValue;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.server.Settings;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.Transactions;
import org.springframework.stereotype.Service;

/** What all letters of the office have in common: the signature, who reads answers, and whether deadlines go along as calendar entries. */
@Service
class LetterSettings {

    static final int LONGEST_SIGNATURE = 1_000;
    /** What parts a signature from the letter (RFC 3676, 4.3). */
    private static final String SIGNATURE_MARK = "\n\n-- \n";

    private final LetterSettingTable table;
    private final Transactions transactions;
    private final Settings settings;

    LetterSettings(LetterSettingTable table, Transactions transactions, Settings settings) {
        this.table = table;
        this.transactions = transactions;
        this.settings = settings;
    }

    LetterSetting now() {
        return table.now();
    }

    /**
     * Changes them.
     *
     * @throws Problem with status 422 naming the field, or 409 when they were changed since
     */
    LetterSetting change(LetterSetting to) {
        String signature = to.signature().strip();
        String reply = to.replyTo().strip();
        if (signature.length() > LONGEST_SIGNATURE) {
            throw Problem.field("signature", "longest", LONGEST_SIGNATURE);
        }
        if (!reply.isEmpty()) {
            try {
                MailAddress.parse(reply);
            } catch (FaultyValue wrong) {
                throw Problem.fields(List.of(wrong.at("replyTo")));
            }
        }
        if (transactions.durably(() -> table.change(new LetterSetting(signature, reply, to.calendar(), to.version()))) != 1) {
            throw Problem.conflict("changed-elsewhere");
        }
        return table.now();
    }

    /** A letter with the signature below it. */
    static String signed(LetterSetting setting, String body) {
        String signature = setting.signature();
        return signature.isEmpty() ? body : body.stripTrailing() + SIGNATURE_MARK + LinkAddress.plain(signature) + "\n";
    }

    /** Who reads answers to a letter for which this coordinator asks. */
    Person replyTo(LetterSetting setting, Person coordinator) {
        String reply = setting.replyTo();
        return reply.isEmpty() ? coordinator : new Person(settings.office(), MailAddress.parse(reply));
    }
}
