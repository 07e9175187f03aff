package oakbasket.core.naming;

/**
 * A name parted for sorting: what stands before a comma is the family name, else the last word is. A name of one word is a family name. Names of many peoples
 * part otherwise; nothing but the sorting of files rests on this (common practice, no source).
 *
 * @param first the given names; may be empty
 * @param last the family name
 */
public record PersonName(String first, String last) {

    /** Parts a whole name. */
    public static PersonName of(String whole) {
        String name = whole.strip();
        int comma = name.indexOf(',');
        if (comma > 0) {
            return new PersonName(name.substring(comma + 1).strip(), name.substring(0, comma).strip());
        }
        int space = name.lastIndexOf(' ');
        return space < 0 ? new PersonName("", name) : new PersonName(name.substring(0, space).strip(), name.substring(space + 1));
    }
}
