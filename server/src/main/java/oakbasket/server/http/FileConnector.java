package oakbasket.server.http;

import java.nio.channels.SelectionKey;
import java.nio.channels.SocketChannel;
import oakbasket.server.web.FileLine;
import org.eclipse.jetty.http.HttpVersion;
import org.eclipse.jetty.io.ManagedSelector;
import org.eclipse.jetty.io.SocketChannelEndPoint;
import org.eclipse.jetty.server.ConnectionFactory;
import org.eclipse.jetty.server.Handler;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;
import org.eclipse.jetty.server.ServerConnector;
import org.eclipse.jetty.util.Callback;

/** Listens as the connector in whose place it comes, with connections that have a {@link FileLine}. */
final class FileConnector extends ServerConnector {

    /** At least so many threads wait for connections. They send parts of files themselves, so one of them would keep a second core from sending. */
    private static final int SELECTORS = 2;

    FileConnector(ServerConnector other) {
        super(other.getServer(), other.getExecutor(), other.getScheduler(), other.getByteBufferPool(), other.getAcceptors(), Math.max(SELECTORS, other.getSelectorManager().getSelectorCount()),
                other.getConnectionFactories().toArray(ConnectionFactory[]::new));
        setHost(other.getHost());
        setPort(other.getPort());
        setIdleTimeout(other.getIdleTimeout());
        setShutdownIdleTimeout(other.getShutdownIdleTimeout());
    }

    @Override
    protected SocketChannelEndPoint newEndPoint(SocketChannel channel, ManagedSelector selector, SelectionKey key) {
        SocketChannelEndPoint endPoint = new FileEndPoint(channel, selector, key, getScheduler());
        endPoint.setIdleTimeout(getIdleTimeout());
        return endPoint;
    }

    /** Tells each request the line that it came by. */
    static final class Told extends Handler.Wrapper {

        Told(Handler next) {
            super(next);
        }

        @Override
        public boolean handle(Request request, Response response, Callback callback) throws Exception {
            if (request.getConnectionMetaData().getHttpVersion() == HttpVersion.HTTP_1_1 && request.getConnectionMetaData().getConnection().getEndPoint() instanceof FileEndPoint files) {
                request.setAttribute(FileLine.ATTRIBUTE, files.line());
            }
            return super.handle(request, response, callback);
        }
    }
}
