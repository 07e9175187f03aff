package oakbasket.server.post;

/** The hours in which one person is not written to, as {@code HH:mm}; both empty where the office's hold. */
record QuietOfPerson(long contactId, String quietFrom, String quietTo) {
}
