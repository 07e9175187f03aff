package oakbasket.server.decode.work;

import ezvcard.VCard;
import ezvcard.io.text.VCardReader;
import ezvcard.property.Categories;
import ezvcard.property.Email;
import ezvcard.property.Language;
import ezvcard.property.Note;
import ezvcard.property.StructuredName;
import ezvcard.property.Timezone;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import oakbasket.core.contact.ContactFields;
import oakbasket.core.contact.ImportPlan;
import oakbasket.server.problem.Problem;
import org.jspecify.annotations.Nullable;

/**
 * Contacts read from vCards (RFC 6350; older versions are read too). Photos and whatever else has no place here are passed over.
 *
 * @param rows the cards as rows, numbered from 1
 */
public record CardsFile(List<ImportPlan.Row> rows) {

    /** The property in which our own cards hold the reference of a contact. */
    public static final String REFERENCE = "X-REFERENCE";
    private static final int MOST_CARDS = 100_000;
    private static final int MOST_NESTED = 4;
    /** Of one card; a large photo in Base64 has about that many. */
    private static final int MOST_LINES = 20_000;

    /** Whether a file begins like vCards. */
    public static boolean looksLike(byte[] content) {
        return new String(content, 0, Math.min(content.length, 200), StandardCharsets.UTF_8).strip().toUpperCase(Locale.ROOT).replace("\uFEFF", "").startsWith("BEGIN:VCARD");
    }

    /** The cards as rows, numbered from 1. */
    static CardsFile read(byte[] content) {
        String text = new String(content, StandardCharsets.UTF_8);
        checkBounds(text);
        List<ImportPlan.Row> rows = new ArrayList<>();
        try (VCardReader reader = new VCardReader(text)) {
            for (VCard card = reader.readNext(); card != null; card = reader.readNext()) {
                if (rows.size() == MOST_CARDS) {
                    throw Problem.refused("import-too-long", MOST_CARDS);
                }
                rows.add(new ImportPlan.Row(rows.size() + 1, fields(card)));
            }
        } catch (Problem tooLong) {
            throw tooLong;
        } catch (IOException | RuntimeException broken) {
            throw Problem.refused("import-not-a-table");
        }
        if (rows.isEmpty()) {
            throw Problem.refused("import-empty");
        }
        return new CardsFile(rows);
    }

    /** Cards within cards (AGENT of vCard 2.1) are read one inside another, and every line of a card is kept until its end: neither may be without bound. */
    private static void checkBounds(String text) {
        int depth = 0;
        int lines = 0;
        for (Iterator<String> all = text.lines().iterator(); all.hasNext();) {
            String line = all.next().strip();
            if (line.regionMatches(true, 0, "BEGIN:VCARD", 0, 11)) {
                depth++;
                lines = depth == 1 ? 0 : lines;
            } else if (line.regionMatches(true, 0, "END:VCARD", 0, 9)) {
                depth--;
            } else if (line.regionMatches(true, 0, "AGENT:BEGIN:VCARD", 0, 17)) {
                depth++;
            }
            if (depth > MOST_NESTED || ++lines > MOST_LINES) {
                throw Problem.refused("import-not-a-table");
            }
        }
    }

    private static ContactFields fields(VCard card) {
        StructuredName parts = card.getStructuredName();
        String name = card.getFormattedName() != null && !text(card.getFormattedName().getValue()).isBlank() ? text(card.getFormattedName().getValue())
                : parts == null ? "" : (text(parts.getGiven()) + " " + text(parts.getFamily())).strip();
        String email = card.getEmails().stream().min((one, other) -> Integer.compare(preference(one), preference(other))).map(Email::getValue).orElse("");
        String organisation = card.getOrganization() == null ? "" : String.join(", ", card.getOrganization().getValues().stream().filter(value -> !value.isBlank()).toList());
        List<String> groups = card.getCategoriesList().stream().map(Categories::getValues).flatMap(List::stream).toList();
        String notes = card.getNotes().stream().map(Note::getValue).collect(Collectors.joining("\n"));
        String language = card.getLanguages().stream().findFirst().map(Language::getValue).orElse("");
        String zone = card.getTimezones().stream().map(Timezone::getText).filter(value -> value != null && value.contains("/")).findFirst().orElse("");
        String reference = card.getExtendedProperty(REFERENCE) == null ? "" : card.getExtendedProperty(REFERENCE).getValue();
        return new ContactFields(name, text(email), organisation, text(reference), text(language), zone, notes, groups);
    }

    private static int preference(Email email) {
        return email.getPref() == null ? 100 : email.getPref();
    }

    private static String text(@Nullable String given) {
        return given == null ? "" : given;
    }
}
