package oakbasket.server.live;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.doAnswer;
import static org.mockito.Mockito.doThrow;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.timeout;
import static org.mockito.Mockito.verify;

import java.io.IOException;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.mockito.Mock;
import org.mockito.junit.jupiter.MockitoExtension;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** A listener that is slow or dead is its own trouble only. */
@ExtendWith(MockitoExtension.class)
class OpenDeskTest {

    private static final int SOON_MILLIS = 10_000;

    @Mock
    private SseEmitter emitter;
    private final ExecutorService threads = Executors.newCachedThreadPool();
    private final List<OpenDesk> gone = new CopyOnWriteArrayList<>();

    @AfterEach
    void stop() {
        threads.shutdownNow();
    }

    private OpenDesk desk() {
        return new OpenDesk(1, "session", emitter, threads, gone::add);
    }

    @Test
    void whoTellsADeskThatDoesNotReadIsNeverHeldUpAndTheDeskIsEnded() throws Exception {
        CountDownLatch never = new CountDownLatch(1);
        doAnswer(call -> never.await(30, TimeUnit.SECONDS)).when(emitter).send(any(SseEmitter.SseEventBuilder.class));
        OpenDesk slow = desk();
        slow.tell(SseEmitter.event().name("arrival"));
        verify(emitter, timeout(SOON_MILLIS)).send(any(SseEmitter.SseEventBuilder.class));
        for (int n = 0; n < 600; n++) {
            slow.tell(SseEmitter.event().name("arrival"));
        }
        assertThat(gone).contains(slow);
        verify(emitter, timeout(SOON_MILLIS)).complete();
        never.countDown();
    }

    @Test
    void aDeskThatWentAwayIsForgottenAtTheFirstWord() throws Exception {
        doThrow(new IOException("connection reset")).when(emitter).send(any(SseEmitter.SseEventBuilder.class));
        OpenDesk dead = desk();
        dead.tell(SseEmitter.event().name("arrival"));
        verify(emitter, timeout(SOON_MILLIS)).complete();
        assertThat(gone).contains(dead);
        dead.tell(SseEmitter.event().name("arrival"));
        verify(emitter, timeout(SOON_MILLIS).times(1)).send(any(SseEmitter.SseEventBuilder.class));
    }

    @Test
    void anEndedDeskHearsNothingMore() throws Exception {
        OpenDesk ended = desk();
        ended.end();
        ended.tell(SseEmitter.event().name("arrival"));
        verify(emitter, never()).send(any(SseEmitter.SseEventBuilder.class));
    }
}
