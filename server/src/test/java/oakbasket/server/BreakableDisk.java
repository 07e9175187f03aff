package oakbasket.server;

import java.io.IOException;
import java.nio.file.OpenOption;
import java.nio.file.Path;
import oakbasket.server.storage.Disk;

/** The disk of this machine, on which something can be made to happen whenever a file is given a place. */
final class BreakableDisk implements Disk {

    /** What happens before a file is written to or linked at a path. */
    interface Mishap {
        void at(Path path) throws IOException;
    }

    private static final Mishap NONE = path -> { };

    private final Disk real = Disk.ofThisMachine();
    private volatile Mishap mishap = NONE;

    void before(Mishap happens) {
        mishap = happens;
    }

    void mend() {
        mishap = NONE;
    }

    @Override
    public DiskFile open(Path path, OpenOption... options) throws IOException {
        mishap.at(path);
        return real.open(path, options);
    }

    @Override
    public void link(Path name, Path file) throws IOException {
        mishap.at(name);
        real.link(name, file);
    }

    @Override
    public void reserve(Path name) throws IOException {
        real.reserve(name);
    }

    @Override
    public void replace(Path file, Path name) throws IOException {
        real.replace(file, name);
    }

    @Override
    public boolean delete(Path name) throws IOException {
        return real.delete(name);
    }

    @Override
    public void makeFolder(Path folder) throws IOException {
        real.makeFolder(folder);
    }

    @Override
    public void forceFolder(Path folder) throws IOException {
        real.forceFolder(folder);
    }
}
