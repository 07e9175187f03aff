package oakbasket.core.quota;

import java.util.Map;
import java.util.Optional;

/** Whose room it is; what comes takes up the room of all three. */
public enum RoomOf {
    ROUND,
    /** Whoever owns the round, or hands the files out. */
    USER,
    OFFICE;

    /** Whose room is too small for so many more bytes, the smallest first; empty when all have room. */
    public static Optional<RoomOf> refusing(Map<RoomOf, Room> rooms, long bytes) {
        for (RoomOf one : values()) {
            Room room = rooms.get(one);
            if (room != null && !room.takes(bytes)) {
                return Optional.of(one);
            }
        }
        return Optional.empty();
    }
}
