package oakbasket.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;

class LiveTest {

    @Test
    void anOpenDeskHearsOfAnArrivalAndOfClosing() throws Exception {
        TestRound round = new TestRound().open();
        BlockingQueue<String> heard = new LinkedBlockingQueue<>();
        var stream = round.desk.client().sendAsync(HttpRequest.newBuilder(URI.create(RunningApp.URL + "/api/live")).timeout(Duration.ofSeconds(30)).build(),
                HttpResponse.BodyHandlers.fromLineSubscriber(new java.util.concurrent.Flow.Subscriber<String>() {
                    @Override
                    public void onSubscribe(java.util.concurrent.Flow.Subscription subscription) {
                        subscription.request(Long.MAX_VALUE);
                    }

                    @Override
                    public void onNext(String line) {
                        heard.add(line);
                    }

                    @Override
                    public void onError(Throwable problem) {
                        heard.add("error " + problem);
                    }

                    @Override
                    public void onComplete() {
                        heard.add("end");
                    }
                }));
        await(heard, "event:hello");
        round.personal("Ada Brook").begin().send(1, "a.pdf", TestRound.pdf("x"));
        await(heard, "event:arrival");
        assertThat(heard.poll(5, TimeUnit.SECONDS)).contains("\"roundId\":" + round.id, "\"basketId\":" + round.row("Ada Brook").path("id").asLong());
        round.desk.post("/api/rounds/" + round.id + "/close", "");
        await(heard, "event:round");
        stream.cancel(true);
    }

    private static void await(BlockingQueue<String> heard, String wanted) throws InterruptedException {
        for (String line = ""; !wanted.equals(line);) {
            line = heard.poll(10, TimeUnit.SECONDS);
            assertThat(line).as("waiting for %s", wanted).isNotNull();
        }
    }
}
