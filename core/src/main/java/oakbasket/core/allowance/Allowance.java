package oakbasket.core.allowance;

import java.time.Instant;
import java.time.LocalDate;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * What a coordinator said of one basket.
 *
 * @param extension the last day of its own deadline; null when it has none
 * @param extensionReason empty when there is no extension
 * @param waivedAt when everything was excused; null when not
 * @param waivedItems when single items were excused, by the id of the item
 * @param pausedAt since when nobody chases it; null when somebody does
 * @param removedAt when it was taken out of the round, kept in its history; null when it is in
 * @param note for colleagues; empty when there is none
 */
public record Allowance(@Nullable LocalDate extension, String extensionReason, @Nullable Instant waivedAt, Map<Long, Instant> waivedItems,
        @Nullable Instant pausedAt, @Nullable Instant removedAt, String note) {

    /** Nothing said. */
    public static final Allowance NONE = new Allowance(null, "", null, Map.of(), null, null, "");

    public Allowance {
        waivedItems = Map.copyOf(waivedItems);
    }

    /** This allowance after a change; the same when the change says what already holds. The only place that changes one. */
    public Allowance after(AllowanceChange change, Instant now) {
        if (change instanceof AllowanceChange.Extend extend) {
            return new Allowance(extend.until(), extend.until() == null ? "" : extend.reason(), waivedAt, waivedItems, pausedAt, removedAt, note);
        }
        if (change instanceof AllowanceChange.ExcuseAll excuse) {
            return new Allowance(extension, extensionReason, since(waivedAt, excuse.on(), now), waivedItems, pausedAt, removedAt, note);
        }
        if (change instanceof AllowanceChange.ExcuseItem excuse) {
            Map<Long, Instant> items = new TreeMap<>(waivedItems);
            if (excuse.on()) {
                items.putIfAbsent(excuse.itemId(), now);
            } else {
                items.remove(excuse.itemId());
            }
            return new Allowance(extension, extensionReason, waivedAt, items, pausedAt, removedAt, note);
        }
        if (change instanceof AllowanceChange.Pause pause) {
            return new Allowance(extension, extensionReason, waivedAt, waivedItems, since(pausedAt, pause.on(), now), removedAt, note);
        }
        if (change instanceof AllowanceChange.Remove remove) {
            return new Allowance(extension, extensionReason, waivedAt, waivedItems, pausedAt, since(removedAt, remove.on(), now), note);
        }
        if (change instanceof AllowanceChange.Note said) {
            return new Allowance(extension, extensionReason, waivedAt, waivedItems, pausedAt, removedAt, said.text());
        }
        throw new IllegalStateException("No rule for " + change);
    }

    private static @Nullable Instant since(@Nullable Instant before, boolean on, Instant now) {
        return on ? (before == null ? now : before) : null;
    }
}
