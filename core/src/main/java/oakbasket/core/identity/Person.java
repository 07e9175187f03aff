package oakbasket.core.identity;

import oakbasket.core.fault.FaultyValue;

/**
 * Somebody who can be asked.
 *
 * @param name as it should be addressed; the part before the @ where no name was given
 * @param address where mail goes
 */
public record Person(String name, MailAddress address) {

    /** The longest name in characters. */
    public static final int LONGEST_NAME = 200;

    public Person {
        if (name.isBlank() || name.length() > LONGEST_NAME || name.chars().anyMatch(Character::isISOControl)) {
            throw new FaultyValue("name-one-line", LONGEST_NAME);
        }
    }
}
