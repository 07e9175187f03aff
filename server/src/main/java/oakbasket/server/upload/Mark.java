package oakbasket.server.upload;

/**
 * What is to be remembered of a file that is filed.
 *
 * @param unchecked nobody could check it for malware
 * @param opened it is an archive that lies beside its files and counts for nothing
 * @param counted it was counted already when it came
 */
record Mark(boolean unchecked, boolean opened, boolean counted) {

    static final Mark NONE = new Mark(false, false, false);
}
