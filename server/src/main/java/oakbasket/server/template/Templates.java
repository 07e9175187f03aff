package oakbasket.server.template;

import java.time.Clock;
import java.util.List;
import oakbasket.core.compose.RoundSheet;
import oakbasket.core.compose.RoundSheetBuilder;
import oakbasket.core.fault.Fault;
import oakbasket.core.round.ItemSpec;
import oakbasket.server.problem.Problem;
import oakbasket.server.storage.Transactions;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;

/** Checklists and whole rounds kept to be used again. */
@Service
public class Templates {

    /** What a template is of. */
    public enum TemplateKind { CHECKLIST, ROUND }

    /**
     * A template.
     *
     * @param sheet for a checklist, with its items alone
     */
    public record KeptTemplate(long id, TemplateKind kind, String name, RoundSheet sheet) {
    }

    private final TemplateTable table;
    private final Transactions transactions;
    private final JsonMapper json;
    private final Clock clock;

    Templates(TemplateTable table, Transactions transactions, JsonMapper json, Clock clock) {
        this.table = table;
        this.transactions = transactions;
        this.json = json;
        this.clock = clock;
    }

    List<KeptTemplate> all() {
        return table.all().stream().map(this::kept).toList();
    }

    KeptTemplate byId(long id) {
        return table.byId(id).map(this::kept).orElseThrow(() -> Problem.notFound("no-template"));
    }

    /**
     * Keeps a checklist or a round; one of the same kind and name is replaced when {@code replace} says so.
     *
     * @throws Problem with status 422 when the name is taken and must not be replaced
     */
    public KeptTemplate keep(TemplateKind kind, String name, RoundSheet sheet, boolean replace) {
        String plain = name.strip();
        if (plain.isEmpty() || plain.length() > ItemSpec.LONGEST_TITLE) {
            throw plain.isEmpty() ? Problem.field("name", "template-name-missing") : Problem.field("name", "longest", ItemSpec.LONGEST_TITLE);
        }
        if (!replace && all().stream().anyMatch(one -> one.kind() == kind && one.name().equals(plain))) {
            throw Problem.refused("template-name-taken", plain).at(Fault.of("name", "template-name-taken", plain));
        }
        RoundSheet plainSheet = sheet.forAnother(sheet.title(), "").withoutPasscode();
        RoundSheet stored = kind == TemplateKind.ROUND ? plainSheet : RoundSheetBuilder.builder().items(plainSheet.items()).build();
        transactions.durably(() -> table.keep(kind.name(), plain, json.writeValueAsString(stored), clock.instant()));
        return all().stream().filter(one -> one.kind() == kind && one.name().equals(plain)).findFirst().orElseThrow();
    }

    void discard(long id) {
        if (transactions.durably(() -> table.delete(id)) != 1) {
            throw Problem.notFound("no-template");
        }
    }

    private KeptTemplate kept(TemplateTable.Template one) {
        return new KeptTemplate(one.id(), TemplateKind.valueOf(one.kind()), one.name(), json.readValue(one.sheet(), RoundSheet.class));
    }
}
