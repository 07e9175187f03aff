package oakbasket.core.contact;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import oakbasket.core.identity.MailAddress;
import org.junit.jupiter.api.Test;

/** What holds for every import, whatever is in it: tried on tables made at random of people who repeat themselves. */
class ImportPlanPropertiesTest {

    private static final int TABLES = 300;

    @Test
    void importingTheSameTwiceChangesNothingTheSecondTime() {
        int compared = 0;
        Random random = new Random(1);
        for (int i = 0; i < TABLES; i++) {
            Map<String, ContactFields> known = known(random);
            List<ImportPlan.Row> rows = rows(random);
            Map<String, ContactFields> after = applied(ImportPlan.of(rows, known, address -> true), known);
            ImportPlan again = ImportPlan.of(rows, after, address -> true);
            assertThat(again.count(ImportPlan.Verdict.ADDED)).isZero();
            assertThat(applied(again, after)).isEqualTo(after);
            // Where a person stands in one line only, nothing is even said to change.
            boolean each = rows.stream().map(row -> row.fields().email().strip().toLowerCase()).distinct().count() == rows.size();
            compared += each ? 1 : 0;
            assertThat(each ? again.count(ImportPlan.Verdict.CHANGED) : 0).isZero();
        }
        assertThat(compared).as("tables without anybody twice").isPositive();
    }

    @Test
    void everyLineHasOneVerdictAndOnlyRefusedOnesHaveAReason() {
        Random random = new Random(2);
        for (int i = 0; i < TABLES; i++) {
            List<ImportPlan.Row> rows = rows(random);
            ImportPlan plan = ImportPlan.of(rows, known(random), address -> true);
            assertThat(plan.lines()).hasSameSizeAs(rows);
            int sum = 0;
            for (ImportPlan.Verdict verdict : ImportPlan.Verdict.values()) {
                sum += plan.count(verdict);
            }
            assertThat(sum).isEqualTo(rows.size());
            assertThat(plan.lines()).allSatisfy(line -> {
                boolean refused = line.verdict() == ImportPlan.Verdict.REFUSED;
                assertThat(line.reason().isNone()).isEqualTo(!refused);
                assertThat(line.result() == null).isEqualTo(refused);
                assertThat(line.changes().isEmpty()).isEqualTo(line.verdict() != ImportPlan.Verdict.CHANGED);
            });
        }
    }

    /** Nothing that was known is emptied, no group is left, and no address is changed. */
    @Test
    void anImportOnlyEverAddsToWhatIsKnown() {
        Random random = new Random(3);
        for (int i = 0; i < TABLES; i++) {
            Map<String, ContactFields> known = known(random);
            Map<String, ContactFields> after = applied(ImportPlan.of(rows(random), known, address -> true), known);
            known.forEach((key, before) -> {
                ContactFields now = after.get(key);
                assertThat(now.email()).isEqualTo(before.email());
                assertThat(now.name()).isNotEmpty();
                assertThat(now.organisation().isEmpty()).isEqualTo(before.organisation().isEmpty() && now.organisation().isEmpty());
                assertThat(now.groups()).containsAll(before.groups());
                assertThat(now.faults()).isEmpty();
            });
        }
    }

    /** A suggestion is itself an address, differs, and needs no further suggestion. */
    @Test
    void aSuggestionIsAlwaysAnAddressThatNeedsNoOther() {
        Random random = new Random(4);
        String[] domains = {"gmail.com", "hotmail.co.uk", "yahoo.com", "btinternet.com", "example.org", "web.de", "icloud.com"};
        int suggested = 0;
        for (int i = 0; i < 20_000; i++) {
            StringBuilder domain = new StringBuilder(domains[random.nextInt(domains.length)]);
            int at = random.nextInt(domain.length());
            switch (random.nextInt(4)) {
                case 0 -> domain.deleteCharAt(at);
                case 1 -> domain.insert(at, domain.charAt(at));
                case 2 -> domain.setCharAt(at, (char) ('a' + random.nextInt(26)));
                default -> domain.reverse().reverse();
            }
            MailAddress typed;
            try {
                typed = MailAddress.parse("ada.b@" + domain);
            } catch (IllegalArgumentException notAnAddress) {
                continue;
            }
            String meant = AddressSlip.suggestion(typed).orElse("");
            if (!meant.isEmpty()) {
                suggested++;
                assertThat(meant).startsWith("ada.b@").isNotEqualTo(typed.text());
                assertThat(AddressSlip.suggestion(MailAddress.parse(meant))).as("%s for %s", meant, typed).isEmpty();
            }
        }
        assertThat(suggested).isGreaterThan(3_000);
    }

    private static Map<String, ContactFields> applied(ImportPlan plan, Map<String, ContactFields> known) {
        Map<String, ContactFields> after = new HashMap<>(known);
        plan.lines().stream().filter(line -> line.result() != null).forEach(line -> after.put(line.key(), line.result()));
        return after;
    }

    private static Map<String, ContactFields> known(Random random) {
        Map<String, ContactFields> known = new HashMap<>();
        for (int n = random.nextInt(4); n >= 0; n--) {
            String email = "p" + n + "@example.org";
            known.put(email, new ContactFields("Person " + n, email, n % 2 == 0 ? "Fenn" : "", "", "", "", "", n % 3 == 0 ? List.of("East") : List.of()));
        }
        return known;
    }

    private static List<ImportPlan.Row> rows(Random random) {
        List<ImportPlan.Row> rows = new ArrayList<>();
        for (int n = random.nextInt(12); n >= 0; n--) {
            String email = random.nextInt(8) == 0 ? "no address" : (random.nextBoolean() ? "p" : "P") + random.nextInt(6) + "@example.org";
            String name = random.nextInt(4) == 0 ? "" : "Person " + random.nextInt(3);
            String zone = random.nextInt(12) == 0 ? "Nowhere" : "";
            rows.add(new ImportPlan.Row(rows.size() + 1, new ContactFields(name, email, random.nextBoolean() ? "" : "Fenn", "", "", zone, "", random.nextBoolean() ? List.of() : List.of("West"))));
        }
        return rows;
    }
}
