package oakbasket.server.storage;

import java.util.Map;
import java.util.Objects;
import org.springframework.jdbc.support.KeyHolder;

/** What must be there, because a row that refers to it is. */
public final class Known {

    private Known() {
    }

    /**
     * What a map holds of a key.
     *
     * @throws IllegalStateException naming the key, when there is nothing
     */
    public static <K, V> V in(Map<K, V> map, K key) {
        V value = map.get(key);
        if (value == null) {
            throw new IllegalStateException("Nothing is known of " + key);
        }
        return value;
    }

    /** The id that an INSERT gave its row. */
    public static long id(KeyHolder inserted) {
        return Objects.requireNonNull(inserted.getKeyAs(Long.class));
    }
}
