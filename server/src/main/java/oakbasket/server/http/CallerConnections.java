package oakbasket.server.http;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.channels.SelectableChannel;
import java.nio.channels.SocketChannel;
import java.util.HashMap;
import java.util.Map;
import org.eclipse.jetty.io.SelectorManager;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Bounds connections, in all and for each address they come from. One that is too many is closed before anything is read from it, so that whoever opens
 * thousands is in nobody's way but their own.
 */
final class CallerConnections implements SelectorManager.AcceptListener {

    private static final Logger LOG = LoggerFactory.getLogger(CallerConnections.class);

    private final int most;
    private final int mostPerCaller;
    private final Map<SelectableChannel, InetAddress> open = new HashMap<>();
    private final Map<InetAddress, Integer> perCaller = new HashMap<>();

    /**
     * Bounds them.
     *
     * @param most connections in all
     * @param mostPerCaller connections from one address; at least {@code most} where all callers come through one proxy
     */
    CallerConnections(int most, int mostPerCaller) {
        this.most = most;
        this.mostPerCaller = mostPerCaller;
    }

    @Override
    public void onAccepting(SelectableChannel channel) {
        if (!admit(channel)) {
            close(channel);
        }
    }

    @Override
    public void onAcceptFailed(SelectableChannel channel, Throwable cause) {
        forget(channel);
    }

    @Override
    public void onClosed(SelectableChannel channel) {
        forget(channel);
    }

    /** How many connections are open. */
    synchronized int open() {
        return open.size();
    }

    private synchronized boolean admit(SelectableChannel channel) {
        InetAddress caller = addressOf(channel);
        if (caller == null || open.size() >= most || perCaller.getOrDefault(caller, 0) >= mostPerCaller) {
            return false;
        }
        open.put(channel, caller);
        perCaller.merge(caller, 1, Integer::sum);
        return true;
    }

    private synchronized void forget(SelectableChannel channel) {
        InetAddress caller = open.remove(channel);
        if (caller != null) {
            perCaller.computeIfPresent(caller, (address, count) -> count == 1 ? null : count - 1);
        }
    }

    private static @org.jspecify.annotations.Nullable InetAddress addressOf(SelectableChannel channel) {
        try {
            return ((InetSocketAddress) ((SocketChannel) channel).getRemoteAddress()).getAddress();
        } catch (IOException | NullPointerException gone) {
            return null;
        }
    }

    private static void close(SelectableChannel channel) {
        try {
            channel.close();
        } catch (IOException problem) {
            LOG.debug("A connection too many could not be closed", problem);
        }
    }
}
