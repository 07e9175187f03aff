package oakbasket.server.demo;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileTime;
import java.util.List;
import oakbasket.core.filing.Condition;
import oakbasket.core.filing.FilingRule;
import oakbasket.core.filing.FilingRuleBuilder;
import oakbasket.core.filing.Placement;
import oakbasket.core.filing.Subject;
import oakbasket.core.filing.Test;
import oakbasket.server.findings.Findings;
import oakbasket.server.loose.LooseFiles;
import oakbasket.server.removal.RemovedFiles;
import oakbasket.server.review.FilesOnDisk;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.rules.RuleSets;
import oakbasket.server.storage.FileStore;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.stereotype.Component;

/** Rules at work in the demo, a filled tray, a bin, and files changed by hand. */
@Component
@ConditionalOnProperty("oakbasket.demo")
class DemoFiling {

    private static final long LONG_AGO_SECONDS = 3_600;

    private final RuleSets rules;
    private final ReceivedFiles files;
    private final RemovedFiles removed;
    private final FilesOnDisk disk;
    private final FileStore store;
    private final Findings findings;
    private final LooseFiles loose;

    DemoFiling(RuleSets rules, ReceivedFiles files, RemovedFiles removed, FilesOnDisk disk, FileStore store, Findings findings, LooseFiles loose) {
        this.rules = rules;
        this.files = files;
        this.removed = removed;
        this.disk = disk;
        this.store = store;
        this.findings = findings;
        this.loose = loose;
    }

    private static FilingRuleBuilder rule(String name, Condition... conditions) {
        return FilingRuleBuilder.builder().name(name).active(true).join(FilingRule.Join.ALL).conditions(List.of(conditions)).copies(List.of()).mark("").tell("");
    }

    /** Rules of the office, before anything arrives. */
    void ofOffice(long account) {
        rules.change(RuleSets.OFFICE, 0, List.of(
                rule("Tracks by month", new Condition(Subject.KIND, Test.IS, "TRACK")).place(new Placement(0, "{round}/Tracks/{received:yyyy-MM}", "{last}, {first}{ext}")).build(),
                rule("Maps for the planting crew", new Condition(Subject.ITEM, Test.IS, "Field boundary map")).also(true).mark("map")
                        .copies(List.of(new Placement(0, "For the planting crew/{round}", "{last} {reference}"))).build()),
                account);
    }

    /** Sends to the tray what comes late to the surveys. */
    void lateToTray(long round, long account) {
        rules.change(round, 0, List.of(rule("Late photos", new Condition(Subject.LATE, Test.IS, Subject.YES), new Condition(Subject.ITEM, Test.IS, "Site photos")).tray(true).build()), account);
    }

    /** Papers that came by post: one that says whose it is, and one that does not. */
    void byPost(long account) {
        put("Benjamin Oakley, certificate of insurance.pdf", DemoFiles.pdf("Certificate of insurance", List.of("Insured: Benjamin Oakley", "Public liability, valid through 31 March")), account);
        put("scan 0007.pdf", DemoFiles.pdf("To whom it may concern", List.of("Please find my consent enclosed.", "T. Reed")), account);
    }

    private void put(String name, byte[] content, long account) {
        loose.put(name, content.length, new ByteArrayInputStream(content), account);
    }

    /** A file in the bin, one changed, one moved, and one that nobody sent. */
    void byHand(long round, long account) {
        List<ReceivedFile> all = files.ofRound(round);
        ReceivedFile twice = all.stream().filter(file -> file.originalName().endsWith(".txt")).findFirst().orElseThrow();
        removed.remove(twice.id(), "Meant for somebody else", account);
        List<ReceivedFile> scans = all.stream().filter(file -> file.originalName().startsWith("scan")).toList();
        try {
            Path changed = disk.present(scans.get(2));
            Files.writeString(changed, "\n% a note written into it\n", StandardCharsets.ISO_8859_1, StandardOpenOption.APPEND);
            Path moved = disk.present(scans.get(4));
            Files.move(moved, moved.resolveSibling("signed, " + moved.getFileName()));
            Path added = store.resolve("Notes from a phone call.txt");
            Files.writeString(added, "Call back about the lower gate.\n");
            for (Path path : List.of(added, moved.resolveSibling("signed, " + moved.getFileName()))) {
                Files.setLastModifiedTime(path, FileTime.from(Files.getLastModifiedTime(path).toInstant().minusSeconds(LONG_AGO_SECONDS)));
            }
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
        findings.look();
    }
}
