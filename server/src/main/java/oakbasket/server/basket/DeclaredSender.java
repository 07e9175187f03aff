package oakbasket.server.basket;

import java.util.ArrayList;
import java.util.List;
import oakbasket.core.fault.Fault;
import oakbasket.core.fault.FaultyValue;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.server.problem.Problem;

/** Who somebody says they are who came without a link of their own. */
final class DeclaredSender {

    private DeclaredSender() {
    }

    /**
     * The person of a name and an address as they were typed.
     *
     * @throws Problem naming the fields that are missing or wrong
     */
    static Person of(String name, String email) {
        List<Fault> errors = new ArrayList<>();
        if (name.isBlank()) {
            errors.add(Fault.of("name", "sender-name-missing"));
        } else if (name.strip().length() > Person.LONGEST_NAME || name.strip().chars().anyMatch(Character::isISOControl)) {
            errors.add(Fault.of("name", "longest-line", Person.LONGEST_NAME));
        }
        try {
            MailAddress address = MailAddress.parse(email);
            if (errors.isEmpty()) {
                return new Person(name.strip(), address);
            }
        } catch (FaultyValue problem) {
            errors.add(problem.at("email"));
        }
        throw Problem.fields(errors);
    }
}
