/**
 * How the server meets the network, before any capability is asked: how many connections, how long a request may take to be said, how much of a body is
 * taken, how slowly an answer may be read, and the headers that every answer carries, those of the container's own refusals included.
 */
@NullMarked
package oakbasket.server.http;

import org.jspecify.annotations.NullMarked;
