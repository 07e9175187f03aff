/** What naming patterns make of files, shown while they are typed. */
@NullMarked
package oakbasket.server.patterns;

import org.jspecify.annotations.NullMarked;
