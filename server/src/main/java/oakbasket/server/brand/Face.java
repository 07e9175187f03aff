package oakbasket.server.brand;

/**
 * What people outside see of the office.
 *
 * @param name of the office
 * @param colour as CSS has it; empty for the colours of the product
 * @param background as CSS has it; empty likewise
 * @param logo the hash of a picture; empty for the mark of the product
 * @param contact one line, how the office can be reached; may be empty
 * @param privacy a line or two, what becomes of papers and who answers for it; may be empty
 * @param version a change names the version it was made from; 0 as long as nobody made it their own
 */
public record Face(String name, String colour, String background, String logo, String contact, String privacy, int version) {
}
