/** Refusals, as services tell them: without HTTP, which maps them to its statuses in {@code web}. */
@NullMarked
package oakbasket.server.problem;

import org.jspecify.annotations.NullMarked;
