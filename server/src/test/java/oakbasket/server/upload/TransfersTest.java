package oakbasket.server.upload;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import oakbasket.server.problem.Problem;
import org.junit.jupiter.api.Test;

/** Nobody who sends keeps others from sending. */
class TransfersTest {

    private final Transfers transfers = new Transfers();

    /** Runs the last while so many others are under way, each of the next caller once the one before has as many as it may. */
    private String whileRunning(int others, long link, Transfers.Receiving<String> last) throws IOException {
        if (others == 0) {
            return last.run();
        }
        return transfers.run(link, "caller " + (others - 1) / Transfers.MOST_OF_A_CALLER, () -> whileRunning(others - 1, link, last));
    }

    @Test
    void aCallerWithManyTransfersShutsNobodyElseOut() throws IOException {
        String done = whileRunning(Transfers.MOST_OF_A_CALLER, 1, () -> {
            assertThatThrownBy(() -> transfers.run(1, "caller 0", () -> "one more")).isInstanceOf(Problem.class);
            assertThat(transfers.run(2, "caller 0", () -> "another link")).isEqualTo("another link");
            return transfers.run(1, "somebody else", () -> "taken");
        });
        assertThat(done).isEqualTo("taken");
        assertThat(transfers.run(1, "caller 0", () -> "again")).as("all places were given back").isEqualTo("again");
    }

    @Test
    void aLinkWithManyCallersLeavesRoomForOtherLinks() throws IOException {
        whileRunning(Transfers.MOST_OF_A_LINK, 1, () -> {
            assertThatThrownBy(() -> transfers.run(1, "somebody else", () -> "one more")).isInstanceOf(Problem.class);
            return whileRunning(Transfers.MOST_IN_ALL - Transfers.MOST_OF_A_LINK, 2, () -> {
                assertThatThrownBy(() -> transfers.run(3, "somebody else", () -> "one more than threads")).isInstanceOf(Problem.class);
                return "";
            });
        });
        assertThatThrownBy(() -> transfers.run(1, "a", () -> {
            throw new IOException("the sender went away");
        })).isInstanceOf(IOException.class);
        whileRunning(Transfers.MOST_OF_A_LINK, 1, () -> "what failed gave its place back too");
    }
}
