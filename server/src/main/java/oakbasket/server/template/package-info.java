/** Checklists and whole rounds kept to be used again, and copies of rounds. */
@NullMarked
package oakbasket.server.template;

import org.jspecify.annotations.NullMarked;
