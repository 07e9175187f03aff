package oakbasket.server.contact;

/**
 * A person who may be asked.
 *
 * @param group the first of the contact's groups by name; empty when in none
 * @param provisional whether the contact only exists because somebody said so on an open link
 */
public record Contact(long id, String name, String email, String organisation, String reference, String group, boolean provisional) {
}
