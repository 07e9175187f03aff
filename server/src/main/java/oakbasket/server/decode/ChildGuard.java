package oakbasket.server.decode;

import java.io.FilePermission;
import java.net.SocketPermission;
import java.net.URLPermission;
import java.nio.file.Path;
import java.security.Permission;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Refuses a child what it never needs: connections, other programs, files other than the one it was given, the program's own and the system's fonts. A second fence: the first is how the child is started
 * ({@link ChildCommand}). Where Java has none of this any more (from 24 on), the first stands alone.
 */
final class ChildGuard {

    private static final int LAST_WITH_MANAGERS = 23;
    private static final Set<String> REFUSED = Set.of("setSecurityManager", "createClassLoader", "setIO");
    /** What Java asks the system for by itself: chance, fonts, time zones, and what it is. */
    private static final List<String> SYSTEM = List.of("/dev/random", "/dev/urandom", "/etc/fedora-release", "/etc/lsb-release", "/etc/redhat-release", "/etc/SuSE-release", "/etc/turbolinux-release", "/etc/os-release", "/usr/share/fonts", "/usr/local/share/fonts", "/etc/fonts", "/usr/share/fontconfig", "/var/cache/fontconfig", "/usr/share/zoneinfo");

    private final List<Path> readable = new ArrayList<>();
    private final Path scratch;
    private volatile @Nullable Path given;

    private ChildGuard(Path scratch) {
        this.scratch = scratch.toAbsolutePath().normalize();
        readable.add(this.scratch);
        readable.add(Path.of(System.getProperty("java.home")).toAbsolutePath().normalize());
        for (String one : System.getProperty("java.class.path").split(System.getProperty("path.separator"))) {
            readable.add(Path.of(one).toAbsolutePath().normalize());
        }
        SYSTEM.forEach(one -> readable.add(Path.of(one)));
    }

    @SuppressWarnings("removal")
    static ChildGuard install(Path scratch) {
        ChildGuard guard = new ChildGuard(scratch);
        if (Runtime.version().feature() <= LAST_WITH_MANAGERS) {
            System.setSecurityManager(new SecurityManager() {
                @Override
                public void checkPermission(Permission wanted) {
                    guard.check(wanted);
                }

                @Override
                public void checkPermission(Permission wanted, Object context) {
                    guard.check(wanted);
                }
            });
        }
        return guard;
    }

    /** From now on this file may be read, and no other one that was given before. */
    void allow(Path file) {
        given = file.toAbsolutePath().normalize();
    }

    void allowNothing() {
        given = null;
    }

    private void check(Permission wanted) {
        if (wanted instanceof SocketPermission || wanted instanceof URLPermission || wanted instanceof RuntimePermission && REFUSED.contains(wanted.getName())
                || wanted instanceof FilePermission && !allowed(wanted.getName(), wanted.getActions())) {
            throw new SecurityException("not for a child: " + wanted);
        }
    }

    private boolean allowed(String name, String actions) {
        if (actions.contains("execute")) {
            return false;
        }
        Path path = Path.of(name).toAbsolutePath().normalize();
        return path.startsWith(scratch) || actions.matches("(read|readlink|,)+") && (path.equals(given) || readable.stream().anyMatch(path::startsWith));
    }
}
