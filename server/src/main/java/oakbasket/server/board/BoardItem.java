package oakbasket.server.board;

import java.util.List;
import oakbasket.server.round.Item;

/** A checklist item as the board heads its column. */
public record BoardItem(long id, String title, boolean required, int minFiles, int maxFiles, List<String> owedBy) {

    /** The items of a checklist in its order. */
    public static List<BoardItem> of(List<Item> items) {
        return items.stream().map(item -> new BoardItem(item.id(), item.spec().title(), item.spec().required(), item.spec().minFiles(), item.spec().maxFiles(), item.owedBy()))
                .toList();
    }
}
