package oakbasket.server.preview;

import java.nio.file.Path;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import oakbasket.core.team.Permission;
import oakbasket.server.loose.LooseFile;
import oakbasket.server.loose.LooseFiles;
import oakbasket.server.problem.Problem;
import oakbasket.server.review.FilesOnDisk;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.security.Needs;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** What can be shown of a received file, or of a loose paper. Looking into one costs memory, so only a few are looked into at once. */
@RestController
@Needs(Permission.CHANGE)
class GlanceController {

    private static final int AT_ONCE = 3;
    private static final int LONGEST_WAIT_SECONDS = 10;

    private final ReceivedFiles files;
    private final FilesOnDisk disk;
    private final LooseFiles loose;
    private final Glances glances;
    private final Semaphore places = new Semaphore(AT_ONCE);

    GlanceController(ReceivedFiles files, FilesOnDisk disk, LooseFiles loose, Glances glances) {
        this.files = files;
        this.disk = disk;
        this.loose = loose;
        this.glances = glances;
    }

    @GetMapping("/api/glances/{file}")
    Glance glance(@PathVariable long file) throws InterruptedException {
        ReceivedFile known = files.byId(file);
        return inTurn(disk.present(known), known.originalName(), known.mediaType());
    }

    @GetMapping("/api/glances/loose/{id}")
    Glance glanceAtLoose(@PathVariable long id) throws InterruptedException {
        LooseFile known = loose.byId(id);
        return inTurn(loose.path(known), known.fileName(), known.mediaType());
    }

    private Glance inTurn(Path path, String name, String mediaType) throws InterruptedException {
        if (!places.tryAcquire(LONGEST_WAIT_SECONDS, TimeUnit.SECONDS)) {
            throw Problem.of(Problem.Kind.BUSY, "glance-later");
        }
        try {
            return glances.of(path, name, mediaType);
        } finally {
            places.release();
        }
    }
}
