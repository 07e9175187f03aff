package oakbasket.server.form;

/** A blank form and its content. */
public record BlankForm(long id, String name, String mediaType, byte[] content) {
}
