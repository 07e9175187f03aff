package oakbasket.core.compose;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import oakbasket.core.compose.RoundSheet.SheetItem;
import oakbasket.core.filekind.FileKind;
import oakbasket.core.round.ItemSpec;

/** Reads the checklist of a sheet. */
final class ItemsCheck {

    private static final long MEBIBYTE = 1024L * 1024L;

    private final RoundSheet sheet;
    private final SheetContext context;
    private final Findings found;

    ItemsCheck(RoundSheet sheet, SheetContext context, Findings found) {
        this.sheet = sheet;
        this.context = context;
        this.found = found;
    }

    /** The items without faults. */
    List<PlannedItem> read() {
        if (sheet.items().isEmpty()) {
            found.error("items", "items-missing");
        } else if (sheet.items().size() > SheetCheck.MOST_ITEMS) {
            found.error("items", "items-most", SheetCheck.MOST_ITEMS);
        }
        List<PlannedItem> planned = new ArrayList<>();
        Set<String> titles = new HashSet<>();
        for (int i = 0; i < sheet.items().size() && i < SheetCheck.MOST_ITEMS; i++) {
            read(sheet.items().get(i), "items[" + i + "].", titles, planned);
        }
        if (!planned.isEmpty() && planned.stream().noneMatch(item -> item.spec().required())) {
            found.odd("items", "items-none-required");
        }
        if (!planned.isEmpty() && planned.stream().noneMatch(item -> item.owedBy().isEmpty())) {
            found.odd("items", "items-groups-only");
        }
        return planned;
    }

    private void read(SheetItem item, String field, Set<String> titles, List<PlannedItem> planned) {
        int before = found.count();
        String title = item.title().strip();
        if (title.isEmpty()) {
            found.error(field + "title", "item-title-missing");
        } else if (title.length() > ItemSpec.LONGEST_TITLE) {
            found.error(field + "title", "longest", ItemSpec.LONGEST_TITLE);
        }
        if (!title.isEmpty() && !titles.add(title.toLowerCase(Locale.ROOT))) {
            found.odd(field + "title", "item-title-twice", title);
        }
        found.longest(field + "help", item.help(), SheetCheck.LONGEST_HELP);
        if (item.minFiles() < 1 || item.minFiles() > ItemSpec.MOST_FILES) {
            found.error(field + "minFiles", "item-least-files", ItemSpec.MOST_FILES);
        }
        if (item.maxFiles() < item.minFiles() || item.maxFiles() > ItemSpec.MOST_FILES) {
            found.error(field + "maxFiles", "item-most-files", ItemSpec.MOST_FILES);
        }
        long bytes = item.maxMebibytes() * MEBIBYTE;
        if (bytes < 1 || bytes > ItemSpec.MOST_BYTES) {
            found.error(field + "maxMebibytes", "item-size", ItemSpec.MOST_BYTES / MEBIBYTE);
        }
        Set<FileKind> kinds = kinds(item, field);
        item.groups().stream().filter(group -> !context.knows(group)).findFirst().ifPresent(group -> found.error(field + "groups", "no-such-group", group));
        Long form = item.formId();
        if (form != null && !context.forms().test(form)) {
            found.error(field + "form", "form-gone");
        }
        if (found.count() == before) {
            ItemSpec spec = new ItemSpec(title, item.help().strip(), item.required(), item.minFiles(), item.maxFiles(), kinds, bytes, item.arrival());
            planned.add(new PlannedItem(item.id(), spec, List.copyOf(new LinkedHashSet<>(item.groups())), form));
        }
    }

    private Set<FileKind> kinds(SheetItem item, String field) {
        Set<FileKind> kinds = EnumSet.noneOf(FileKind.class);
        for (String kind : item.kinds()) {
            try {
                kinds.add(FileKind.valueOf(kind));
            } catch (IllegalArgumentException unknown) {
                found.error(field + "kinds", "no-such-kind", kind);
            }
        }
        return kinds;
    }
}
