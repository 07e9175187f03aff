package oakbasket.server.demo;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import oakbasket.core.identity.Person;
import oakbasket.server.parcel.PastParcels;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;

/** What the office of the demo hands out. */
@Component
@ConditionalOnProperty("oakbasket.demo")
class DemoParcels {

    private final PastParcels parcels;
    private final Instant now;

    DemoParcels(PastParcels parcels, Clock clock) {
        this.parcels = parcels;
        this.now = clock.instant().truncatedTo(ChronoUnit.MINUTES);
    }

    void make(long account) {
        List<Person> owners = DemoPeople.LANDOWNERS.stream().limit(5).map(DemoPeople.Invented::person).toList();
        Map<String, byte[]> signed = new LinkedHashMap<>();
        signed.put("Access consent, countersigned.pdf", DemoFiles.pdf("Access consent", List.of("Countersigned for the partnership", "Keep this copy with your papers")));
        signed.put("Planting plan, left bank.png", DemoFiles.photo(77, "png"));
        signed.put("What happens next.txt", DemoFiles.text("The contractor rings before coming.", "Planting begins in the second week of November.", "Gates are left as they are found."));
        parcels.record(account, "Countersigned copies, winter planting", "Here are your copies, signed by us. You need send nothing back.", owners, false, signed, now.minus(Duration.ofDays(9)), false,
                List.of(3, 3, 1, 0, 3));
        parcels.record(account, "Training slides, kick sampling", "From Saturday at the weir.", List.of(), true,
                Map.of("Kick sampling.pdf", DemoFiles.pdf("Kick sampling", List.of("Three minutes, heel first, net downstream"))), now.minus(Duration.ofDays(2)), false, List.of());
        parcels.record(account, "Draft of the spring river report", "", DemoPeople.SURVEYORS.stream().limit(3).map(DemoPeople.Invented::person).toList(), false,
                Map.of("River report, draft.pdf", DemoFiles.pdf("River report", List.of("Draft, not to be passed on"))), now.minus(Duration.ofHours(2)), true, List.of());
    }
}
