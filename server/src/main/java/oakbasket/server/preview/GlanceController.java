package oakbasket.server.preview;

import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import oakbasket.server.problem.Problem;
import oakbasket.server.review.FilesOnDisk;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** What can be shown of a received file. Looking into one costs memory, so only a few are looked into at once. */
@RestController
class GlanceController {

    private static final int AT_ONCE = 3;
    private static final int LONGEST_WAIT_SECONDS = 10;

    private final ReceivedFiles files;
    private final FilesOnDisk disk;
    private final Glances glances;
    private final Semaphore places = new Semaphore(AT_ONCE);

    GlanceController(ReceivedFiles files, FilesOnDisk disk, Glances glances) {
        this.files = files;
        this.disk = disk;
        this.glances = glances;
    }

    @GetMapping("/api/glances/{file}")
    Glance glance(@PathVariable long file) throws InterruptedException {
        ReceivedFile known = files.byId(file);
        if (!places.tryAcquire(LONGEST_WAIT_SECONDS, TimeUnit.SECONDS)) {
            throw Problem.of(Problem.Kind.BUSY, "glance-later");
        }
        try {
            return glances.of(disk.present(known), known.originalName(), known.mediaType());
        } finally {
            places.release();
        }
    }
}
