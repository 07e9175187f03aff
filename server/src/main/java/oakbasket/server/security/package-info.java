/** Secrets and guessing: keys outside the database, hashes, how often a stranger may try, and how many slow comparisons run at once. Knows no HTTP. */
@NullMarked
package oakbasket.server.security;

import org.jspecify.annotations.NullMarked;
