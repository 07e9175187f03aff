/** Oak Basket as a server: capabilities in packages of their own, each from HTTP through a service to its tables and adapters. */
@NullMarked
package oakbasket.server;

import org.jspecify.annotations.NullMarked;
