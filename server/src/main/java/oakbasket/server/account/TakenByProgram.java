package oakbasket.server.account;

/**
 * A program that came in with an app password looked at folders or took a file away.
 *
 * @param path of the file; empty where it only looked
 */
public record TakenByProgram(Account account, String caller, String path) {
}
