package oakbasket.server.web;

import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.media.Schema;
import java.math.BigDecimal;
import java.util.Map;
import oakbasket.core.allowance.AllowanceChange;
import oakbasket.core.compose.SheetCheck;
import oakbasket.core.contact.ContactFields;
import oakbasket.core.exchange.ExchangeCheck;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.core.letter.LetterText;
import oakbasket.core.link.LinkLimits;
import oakbasket.core.link.LinkWindow;
import oakbasket.core.link.Passcode;
import oakbasket.core.link.ReadableName;
import oakbasket.core.naming.NamingPattern;
import oakbasket.core.parcel.ParcelCheck;
import oakbasket.core.parcel.ParcelTerms;
import oakbasket.core.recurrence.Recurrence;
import oakbasket.core.recurrence.Series;
import oakbasket.core.reminder.ReminderPlan;
import oakbasket.core.reminder.ReminderStep;
import oakbasket.core.round.ItemSpec;
import oakbasket.core.team.PasskeyTerms;

/** Writes the limits that the core holds into the API description, from where the desk takes them. */
final class ApiLimits {

    private static final long MEBIBYTE = 1L << 20;

    private static final Map<String, Map<String, Integer>> LENGTHS = Map.ofEntries(
            Map.entry("RoundSheet", Map.of("title", ItemSpec.LONGEST_TITLE, "note", SheetCheck.LONGEST_NOTE, "passcode", Passcode.LONGEST,
                    "folderPattern", NamingPattern.LONGEST, "namePattern", NamingPattern.LONGEST)),
            Map.entry("SheetItem", Map.of("title", ItemSpec.LONGEST_TITLE, "help", SheetCheck.LONGEST_HELP)),
            Map.entry("ContactForm", Map.of("name", Person.LONGEST_NAME, "email", MailAddress.MOST_OCTETS, "organisation", ContactFields.LONGEST_ORGANISATION,
                    "reference", ContactFields.LONGEST_REFERENCE, "notes", ContactFields.LONGEST_NOTES)),
            Map.entry("Regroup", Map.of("group", ContactFields.LONGEST_GROUP)),
            Map.entry("Mapping", Map.of("group", ContactFields.LONGEST_GROUP)),
            Map.entry("Keep", Map.of("name", ItemSpec.LONGEST_TITLE)),
            Map.entry("TypedText", Map.of("subject", LetterText.LONGEST_SUBJECT, "body", LetterText.LONGEST_BODY)),
            Map.entry("BasketChange", Map.of("reason", AllowanceChange.LONGEST_TEXT, "text", AllowanceChange.LONGEST_TEXT)),
            Map.entry("TermsForm", Map.of("name", ReadableName.LONGEST)),
            Map.entry("SeriesTerms", Map.of("rule", Recurrence.LONGEST_RULE)),
            Map.entry("ParcelSheet", Map.of("title", ParcelCheck.LONGEST_TITLE, "message", ParcelCheck.LONGEST_MESSAGE, "passcode", Passcode.LONGEST, "name", ReadableName.LONGEST)),
            Map.entry("PasskeyMade", Map.of("label", PasskeyTerms.LONGEST_LABEL)),
            Map.entry("ExchangeSheet", Map.of("title", ExchangeCheck.LONGEST_TITLE, "message", ExchangeCheck.LONGEST_MESSAGE, "item", ItemSpec.LONGEST_TITLE, "passcode", Passcode.LONGEST, "name", ReadableName.LONGEST)));

    private static final Map<String, Map<String, Span>> NUMBERS = Map.of(
            "RoundSheet", Map.of("warningHours", new Span(0, SheetCheck.MOST_HOURS), "graceHours", new Span(0, SheetCheck.MOST_HOURS)),
            "SheetItem", Map.of("minFiles", new Span(1, ItemSpec.MOST_FILES), "maxFiles", new Span(1, ItemSpec.MOST_FILES),
                    "maxMebibytes", new Span(1, ItemSpec.MOST_BYTES / MEBIBYTE)),
            "SheetLetters", Map.of("repeatTimes", new Span(0, ReminderPlan.MOST_REPEATS), "repeatEvery", new Span(1, ReminderPlan.MOST_REPEAT_DAYS)),
            "SheetStep", Map.of("days", new Span(-ReminderStep.FARTHEST, ReminderStep.FARTHEST)),
            "TermsForm", Map.of("days", new Span(1, LinkWindow.LONGEST_LIFE.toDays()), "uses", new Span(1, LinkLimits.MOST), "files", new Span(1, LinkLimits.MOST),
                    "fileMebibytes", new Span(1, ItemSpec.MOST_BYTES / MEBIBYTE), "totalMebibytes", new Span(1, LinkLimits.MOST_BYTES / MEBIBYTE)),
            "ExchangeSheet", Map.of("days", new Span(1, LinkWindow.LONGEST_LIFE.toDays())),
            "ParcelSheet", Map.of("days", new Span(1, LinkWindow.LONGEST_LIFE.toDays()), "mostPickUps", new Span(1, ParcelTerms.MOST_PICK_UPS), "keptDays", new Span(0, ParcelTerms.MOST_KEPT_DAYS)),
            "ParcelStep", Map.of("days", new Span(-ReminderStep.FARTHEST, 0)),
            "SeriesTerms", Map.of("opensDaysBefore", new Span(0, Series.MOST_DAYS_BEFORE)));

    private static final Map<String, Map<String, Integer>> COUNTS = Map.of(
            "RoundSheet", Map.of("items", SheetCheck.MOST_ITEMS),
            "SheetLetters", Map.of("steps", ReminderPlan.MOST_STEPS),
            "ParcelSheet", Map.of("people", ParcelCheck.MOST_PEOPLE, "reminders", ReminderPlan.MOST_STEPS),
            "ContactForm", Map.of("groups", ContactFields.MOST_GROUPS));

    private record Span(long least, long most) {
    }

    private ApiLimits() {
    }

    static void into(OpenAPI api) {
        LENGTHS.forEach((schema, fields) -> fields.forEach((field, most) -> property(api, schema, field).setMaxLength(most)));
        NUMBERS.forEach((schema, fields) -> fields.forEach((field, span) -> {
            property(api, schema, field).setMinimum(BigDecimal.valueOf(span.least()));
            property(api, schema, field).setMaximum(BigDecimal.valueOf(span.most()));
        }));
        COUNTS.forEach((schema, fields) -> fields.forEach((field, most) -> property(api, schema, field).setMaxItems(most)));
    }

    private static Schema<?> property(OpenAPI api, String schema, String field) {
        Schema<?> described = api.getComponents().getSchemas().get(schema);
        if (described != null && described.getProperties().get(field) instanceof Schema<?> found) {
            return found;
        }
        throw new IllegalStateException("The API description has no " + schema + "." + field + " to limit");
    }
}
