package oakbasket.server.preview;

import java.nio.file.Path;
import oakbasket.core.team.Permission;
import oakbasket.server.decode.Decoders;
import oakbasket.server.decode.work.Glance;
import oakbasket.server.decode.work.LookAt;
import oakbasket.server.loose.LooseFile;
import oakbasket.server.loose.LooseFiles;
import oakbasket.server.review.FilesOnDisk;
import oakbasket.server.review.ReceivedFile;
import oakbasket.server.review.ReceivedFiles;
import oakbasket.server.security.Needs;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** What can be shown of a received file, or of a loose paper. */
@RestController
@Needs(Permission.CHANGE)
class GlanceController {

    private final ReceivedFiles files;
    private final FilesOnDisk disk;
    private final LooseFiles loose;
    private final Decoders decoders;

    GlanceController(ReceivedFiles files, FilesOnDisk disk, LooseFiles loose, Decoders decoders) {
        this.files = files;
        this.disk = disk;
        this.loose = loose;
        this.decoders = decoders;
    }

    @GetMapping("/api/glances/{file}")
    Glance glance(@PathVariable long file) {
        ReceivedFile known = files.byId(file);
        return look(disk.leaving(known), known.sha256(), known.originalName(), known.mediaType());
    }

    @GetMapping("/api/glances/loose/{id}")
    Glance glanceAtLoose(@PathVariable long id) {
        LooseFile known = loose.byId(id);
        return look(loose.path(known), known.sha256(), known.fileName(), known.mediaType());
    }

    private Glance look(Path path, byte[] sha256, String name, String mediaType) {
        return decoders.ask(new LookAt(name, mediaType), path, sha256, Decoders.Lane.DESK).orElse(Glance.of(Glance.Kind.UNREADABLE));
    }
}
