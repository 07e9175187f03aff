/**
 * What is read out of the bytes of strangers: what a look shows, what a drawing draws, what an import brings. All of it is done in child processes alone, which {@link oakbasket.server.decode.Decoders} keeps; here is what
 * they do, as records of what is asked and of what is answered.
 */
@NullMarked
package oakbasket.server.decode.work;

import org.jspecify.annotations.NullMarked;
