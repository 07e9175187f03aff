/** Contacts as typed or imported: their fields, columns of a table, what an import would do, slips of the keyboard, the same person twice. */
@NullMarked
package oakbasket.core.contact;

import org.jspecify.annotations.NullMarked;
