/** Telling coordinators by mail of what has come, each as they want it. */
@NullMarked
package oakbasket.server.digest;

import org.jspecify.annotations.NullMarked;
