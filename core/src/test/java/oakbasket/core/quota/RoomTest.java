package oakbasket.core.quota;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.EnumMap;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RoomTest {

    /** Used and most in bytes ("-" where nothing is set), then what is asked for. */
    @ParameterizedTest(name = "{0} of {1}, {2} more: {3}, {4} %, warns {5}")
    @CsvSource({
        "0, -, 9000000000000000000, true, 0, false",
        "0, 100, 100, true, 0, false",
        "0, 100, 101, false, 0, false",
        "79, 100, 21, true, 79, false",
        "79, 100, 22, false, 79, false",
        "80, 100, 1, true, 80, true",
        "799, 1000, 1, true, 79, false",
        "800, 1000, 1, true, 80, true",
        "999, 1000, 1, true, 99, true",
        "1000, 1000, 1, false, 100, true",
        "1000, 1000, 0, true, 100, true",
        // The limit was lowered afterwards: what lies there stays, and nothing more comes.
        "150, 100, 1, false, 150, true",
        "150, 100, 0, true, 150, true",
        "0, 0, 0, true, 100, true",
        "0, 0, 1, false, 100, true",
        // No sum overflows.
        "4611686018427387904, 9223372036854775807, 4611686018427387903, true, 50, false",
        "9223372036854775807, 9223372036854775807, 1, false, 100, true",
    })
    void roomIsTakenUp(long used, String most, long more, boolean takes, int percent, boolean warns) {
        Room room = new Room(used, most.equals("-") ? null : Long.valueOf(most));
        assertThat(room.takes(more)).isEqualTo(takes);
        assertThat(room.percent()).isEqualTo(percent);
        assertThat(room.warns()).isEqualTo(warns);
    }

    @Test
    void theSmallestThatIsTooSmallRefuses() {
        Map<RoomOf, Room> rooms = new EnumMap<>(Map.of(RoomOf.OFFICE, new Room(0, 10L), RoomOf.USER, new Room(5, 10L), RoomOf.ROUND, new Room(8, 10L)));
        assertThat(RoomOf.refusing(rooms, 2)).isEmpty();
        assertThat(RoomOf.refusing(rooms, 3)).contains(RoomOf.ROUND);
        rooms.remove(RoomOf.ROUND);
        assertThat(RoomOf.refusing(rooms, 5)).isEmpty();
        assertThat(RoomOf.refusing(rooms, 6)).contains(RoomOf.USER);
        assertThat(RoomOf.refusing(Map.of(RoomOf.OFFICE, new Room(0, 10L)), 11)).contains(RoomOf.OFFICE);
        assertThat(RoomOf.refusing(Map.of(), Long.MAX_VALUE)).isEmpty();
    }

    @Test
    void roomIsNeverLessThanNothing() {
        assertThatThrownBy(() -> new Room(-1, null)).isInstanceOf(IllegalArgumentException.class).hasMessageContaining("-1");
        assertThatThrownBy(() -> new Room(0, -1L)).isInstanceOf(IllegalArgumentException.class);
    }
}
