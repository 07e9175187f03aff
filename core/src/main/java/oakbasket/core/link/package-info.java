/** Who may come in through a request link now, and how a link stands for the coordinator. */
@NullMarked
package oakbasket.core.link;

import org.jspecify.annotations.NullMarked;
