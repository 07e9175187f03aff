/** Bytes and keys on disk, and making them survive a power cut. */
@NullMarked
package oakbasket.server.storage;

import org.jspecify.annotations.NullMarked;
