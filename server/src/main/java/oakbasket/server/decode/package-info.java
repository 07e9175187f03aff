/**
 * A small pool of child processes in which the bytes of strangers are decoded, each with its own heap, time and nothing else: whatever a file does to its reader, it costs one child. What they do stands in
 * {@link oakbasket.server.decode.work}.
 */
@NullMarked
package oakbasket.server.decode;

import org.jspecify.annotations.NullMarked;
