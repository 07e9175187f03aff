/** Zones, deadlines as people write them, effective deadlines, grace, and lateness in exact time and working days. */
@NullMarked
package oakbasket.core.deadline;

import org.jspecify.annotations.NullMarked;
