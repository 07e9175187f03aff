package oakbasket.server.http;

import java.time.Duration;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import org.eclipse.jetty.io.Connection;
import org.eclipse.jetty.io.EndPoint;
import org.eclipse.jetty.server.Handler;
import org.eclipse.jetty.server.Request;
import org.eclipse.jetty.server.Response;
import org.eclipse.jetty.util.Callback;
import org.eclipse.jetty.util.NanoTime;
import org.eclipse.jetty.util.thread.Scheduler;

/**
 * Closes connections on which no request is under way for too long. The container's own idle time begins anew with each byte, so that a request head sent
 * a byte at a time would never end; here the whole head has one time.
 */
final class RequestsUnderWay extends Handler.Wrapper implements Connection.Listener {

    /** How long a connection may go without a whole request head, counted from its opening or its last answer. */
    static final Duration LONGEST_WAIT = Duration.ofSeconds(20);
    private static final int LOOK_EVERY_SECONDS = 1;

    private static final class Waiting {
        private volatile boolean busy;
        private volatile long since = NanoTime.now();
    }

    private final Map<EndPoint, Waiting> connections = new ConcurrentHashMap<>();
    private final Scheduler scheduler;

    RequestsUnderWay(Handler next, Scheduler scheduler) {
        super(next);
        this.scheduler = scheduler;
    }

    @Override
    protected void doStart() throws Exception {
        super.doStart();
        lookAgainLater();
    }

    @Override
    public void onOpened(Connection connection) {
        connections.put(connection.getEndPoint(), new Waiting());
    }

    @Override
    public void onClosed(Connection connection) {
        connections.remove(connection.getEndPoint());
    }

    @Override
    public boolean handle(Request request, Response response, Callback callback) throws Exception {
        Waiting waiting = connections.get(request.getConnectionMetaData().getConnection().getEndPoint());
        if (waiting != null) {
            waiting.busy = true;
            Request.addCompletionListener(request, problem -> {
                waiting.since = NanoTime.now();
                waiting.busy = false;
            });
        }
        return super.handle(request, response, callback);
    }

    private void lookAgainLater() {
        scheduler.schedule(() -> {
            connections.forEach((endPoint, waiting) -> {
                if (!waiting.busy && NanoTime.since(waiting.since) > LONGEST_WAIT.toNanos()) {
                    endPoint.close();
                }
            });
            if (isRunning()) {
                lookAgainLater();
            }
        }, LOOK_EVERY_SECONDS, TimeUnit.SECONDS);
    }
}
