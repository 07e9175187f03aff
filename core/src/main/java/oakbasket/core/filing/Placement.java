package oakbasket.core.filing;

/**
 * Where a rule puts files, as typed.
 *
 * @param root the folder root; 0 means the first one
 * @param folder a pattern for folders; empty means the folders of the round
 * @param name a pattern for the file name; empty means the name of the round
 */
public record Placement(long root, String folder, String name) {
}
