package oakbasket.server.team;

import java.util.concurrent.ExecutorService;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import oakbasket.server.account.SignInChange;
import oakbasket.server.storage.Acting;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** Tells people by letter that what they sign in with was changed, so that they notice when it was not they who did. A mail server that is slow or away keeps nobody waiting. */
@Component
class SignInChangesTold {

    private static final int MOST_WAITING = 1_000;
    private static final Logger LOG = LoggerFactory.getLogger(SignInChangesTold.class);

    private final TeamLetters letters;
    private final ExecutorService writer = new ThreadPoolExecutor(0, 1, 10, TimeUnit.SECONDS, new LinkedBlockingQueue<>(MOST_WAITING), work -> {
        Thread thread = new Thread(work, "sign-in-letters");
        thread.setDaemon(true);
        return thread;
    }, new ThreadPoolExecutor.DiscardPolicy());

    SignInChangesTold(TeamLetters letters) {
        this.letters = letters;
    }

    @EventListener
    void changed(SignInChange change) {
        writer.execute(Acting.office(() -> {
            try {
                letters.changed(PasswordResets.person(change.account()), change.what().name());
            } catch (RuntimeException problem) {
                LOG.error("A letter about a changed account could not be written", problem);
            }
        }));
    }
}
