package oakbasket.server.storage;

import java.time.Duration;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.SpringApplicationRunListener;
import org.springframework.boot.bootstrap.ConfigurableBootstrapContext;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.core.Ordered;

/** The thread that starts the server works for the office itself until the server is ready: it repairs what a power cut left, and reads what is remembered. */
final class StartingUp implements SpringApplicationRunListener, Ordered {

    private boolean begun;

    @Override
    public void starting(ConfigurableBootstrapContext context) {
        begun = Acting.nobody();
        if (begun) {
            Acting.beginOffice();
        }
    }

    @Override
    public void ready(ConfigurableApplicationContext context, @Nullable Duration taken) {
        end();
    }

    @Override
    public void failed(@Nullable ConfigurableApplicationContext context, Throwable problem) {
        end();
    }

    private void end() {
        if (begun) {
            Acting.end();
        }
    }

    /** After everybody else, so that whoever is told that the server is ready can still work. */
    @Override
    public int getOrder() {
        return LOWEST_PRECEDENCE;
    }
}
