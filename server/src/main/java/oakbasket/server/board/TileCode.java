package oakbasket.server.board;

import oakbasket.core.standing.ItemStanding;
import oakbasket.core.standing.Tile;
import org.springframework.boot.jackson.JacksonComponent;
import tools.jackson.core.JsonGenerator;
import tools.jackson.databind.SerializationContext;
import tools.jackson.databind.ValueSerializer;

/**
 * One item of one basket as a number, so that a board of 60,000 of them stays small: what its standing is written as in the lowest three bits; 8 when it
 * became satisfied after grace; 16 when it is owed after grace; the number of files that count from 32 on. Read by web/src/shared/tile.ts.
 */
@JacksonComponent
public final class TileCode extends ValueSerializer<Tile> {

    private static final int LATE = 8;
    private static final int OVERDUE = 16;
    private static final int FILES = 32;

    @Override
    public void serialize(Tile tile, JsonGenerator out, SerializationContext context) {
        out.writeNumber(of(tile));
    }

    /** The number of a tile. */
    public static int of(Tile tile) {
        return written(tile.standing()) + (tile.late() ? LATE : 0) + (tile.overdue() ? OVERDUE : 0) + tile.files() * FILES;
    }

    private static int written(ItemStanding standing) {
        return switch (standing) {
            case NOT_OWED -> 0;
            case WAIVED -> 1;
            case RETURNED -> 2;
            case ACCEPTED -> 3;
            case ARRIVED -> 4;
            case PART -> 5;
            case WANTED -> 6;
        };
    }
}
