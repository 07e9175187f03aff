package oakbasket.bench;

import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import oakbasket.core.filekind.FileKind;
import oakbasket.core.filing.Condition;
import oakbasket.core.filing.FilingDecision;
import oakbasket.core.filing.FilingFacts;
import oakbasket.core.filing.FilingPlan;
import oakbasket.core.filing.FilingRule;
import oakbasket.core.filing.Placement;
import oakbasket.core.filing.Source;
import oakbasket.core.filing.Subject;
import oakbasket.core.filing.Test;
import oakbasket.core.filing.TrialRun;
import oakbasket.core.identity.Identity;
import oakbasket.core.naming.NameFacts;
import oakbasket.core.naming.NamingPattern;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** A trial of 20 rules, none of which is the first for most files, over 100,000 files of 5,000 people, places, clashes and counts of folders included. */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Fork(1)
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
public class HundredThousandFiles {

    @Param({"100000"})
    public int files;

    private final List<FilingFacts> facts = new ArrayList<>();
    private final List<String> places = new ArrayList<>();
    private final List<FilingRule> rules = new ArrayList<>();

    @Setup
    public void make() {
        Instant at = Instant.parse("2027-02-01T10:00:00Z");
        for (int n = 0; n < files; n++) {
            int person = n / 20;
            String group = "Group " + person % 40;
            NameFacts names = new NameFacts("Field season 2027", group, "No group", "Ada Brook " + person, "Brook Farm", "ada" + person + "@example.org", "L-" + person, "", "Document " + n % 12, "PDF",
                    "scan" + n + (n % 3 == 0 ? ".jpg" : ".pdf"), at.plusSeconds(n), at, ZoneId.of("Europe/London"), "ABCD-EFGH-JKMN", n % 20 + 1);
            facts.add(new FilingFacts(names, List.of(group), n % 3 == 0 ? FileKind.IMAGE : FileKind.PDF, 1_000L * n, n % 7 == 0, Identity.IDENTIFIED, Source.PERSONAL_LINK));
            places.add("Field season 2027/Ada Brook " + person + "/Document " + n % 12 + " (" + n % 20 + ")" + (n % 3 == 0 ? ".jpg" : ".pdf"));
        }
        for (int n = 0; n < 20; n++) {
            List<Condition> conditions = List.of(new Condition(Subject.ITEM, Test.IS, "document " + n), n % 2 == 0 ? new Condition(Subject.GROUP, Test.CONTAINS, "group " + n) : new Condition(Subject.NAME, Test.MATCHES, "scan[0-9]*" + n + "\\.(pdf|jpg)"));
            rules.add(new FilingRule("", true, FilingRule.Join.ALL, conditions, false, new Placement(0, "{round}/Rule " + n + "/<{group}>", "{last}, {first} - {received:yyyy-MM-dd}{ext}"), false, List.of(), "", ""));
        }
    }

    @Benchmark
    public TrialRun.Outcome trial() {
        FilingPlan plan = new FilingPlan(rules, List.of(), NamingPattern.folders("{round}/{person}"), NamingPattern.fileName("{person} - {item} - {received:yyyy-MM-dd}{ext}"));
        List<TrialRun.Candidate> candidates = new ArrayList<>(files);
        for (int n = 0; n < files; n++) {
            FilingDecision.Target target = plan.decide(facts.get(n)).target();
            candidates.add(new TrialRun.Candidate(n, places.get(n), target.folderPlace(), target.name()));
        }
        return TrialRun.of(candidates, place -> false);
    }
}
