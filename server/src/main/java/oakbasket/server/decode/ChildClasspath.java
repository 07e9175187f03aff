package oakbasket.server.decode;

import java.io.File;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.jar.Attributes;
import java.util.jar.JarEntry;
import java.util.jar.JarFile;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import java.util.zip.CRC32;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.springframework.util.FileSystemUtils;

/**
 * Where a child finds its classes. Started from an archive, be it the one that is handed out or that one unpacked as Spring Boot's reference describes under "efficient deployments", the few parts a child needs are laid out
 * beside the data once for each version: a child then starts in half the time. Two servers of one data folder lay out the same, and whoever is second takes what is there.
 */
final class ChildClasspath {

    private static final String CLASSES = "BOOT-INF/classes/";
    private static final String LIBRARIES = "BOOT-INF/lib/";
    /** What decoding needs, by the names of the libraries without their versions. */
    private static final Set<String> NEEDED = Set.of("core", "jspecify", "jackson-core", "jackson-databind", "jackson-annotations", "commons-csv", "commons-codec", "commons-io", "commons-lang3", "commons-logging", "commons-math3",
            "commons-collections4", "poi", "poi-scratchpad", "log4j-api", "log4j-to-slf4j", "slf4j-api", "SparseBitSet", "pdfbox", "pdfbox-io", "fontbox", "jasperreports-fonts", "ez-vcard", "vinnie", "ical4j", "threeten-extra",
            "jsoup", "re2j", "freemarker", "fastexcel-reader", "aalto-xml", "stax2-api", "commons-compress");
    private static final String NESTED = "jar:nested:";

    private ChildClasspath() {
    }

    /** Whether this is the packaged application, whole or unpacked. */
    static boolean packaged() {
        return from().startsWith(NESTED) || from().endsWith(".jar");
    }

    private static String from() {
        return String.valueOf(ChildClasspath.class.getProtectionDomain().getCodeSource().getLocation());
    }

    /** The class path for a child. @param folder where parts may be laid out */
    static String in(Path folder) throws IOException {
        String from = from();
        if (!packaged()) {
            // The same parts and no others, so that one which is missing is missed here already.
            return Stream.of(System.getProperty("java.class.path").split(File.pathSeparator)).filter(part -> Files.isDirectory(Path.of(part)) || needed(Path.of(part).getFileName().toString()))
                    .collect(Collectors.joining(File.pathSeparator));
        }
        boolean whole = from.startsWith(NESTED);
        Path archive = Path.of(URI.create(whole ? "file:" + from.substring(NESTED.length(), from.indexOf("/!")) : from));
        Path laid = folder.resolve("lib-" + sum(archive));
        if (!Files.isDirectory(laid)) {
            layOut(archive, whole, folder, laid);
        }
        List<String> parts = new ArrayList<>();
        try (Stream<Path> all = Files.list(laid)) {
            all.sorted().forEach(one -> parts.add(one.toAbsolutePath().toString()));
        }
        return String.join(File.pathSeparator, parts);
    }

    /** Differs whenever anything in the archive does: two versions may well be as long and, built reproducibly, of one time. */
    private static String sum(Path archive) throws IOException {
        CRC32 sum = new CRC32();
        try (JarFile jar = new JarFile(archive.toFile())) {
            for (JarEntry entry : (Iterable<JarEntry>) jar.stream()::iterator) {
                sum.update((entry.getName() + " " + entry.getCrc() + " " + entry.getSize() + "\n").getBytes(StandardCharsets.UTF_8));
            }
        }
        return Long.toString(sum.getValue(), 36) + "-" + Long.toString(Files.size(archive), 36);
    }

    private static boolean needed(String library) {
        return NEEDED.contains(library.replaceAll("-\\d.*", ""));
    }

    private static void layOut(Path archive, boolean whole, Path folder, Path laid) throws IOException {
        Path making = Files.createTempDirectory(folder, "making");
        String classes = whole ? CLASSES : "";
        try (JarFile jar = new JarFile(archive.toFile()); OutputStream out = Files.newOutputStream(making.resolve("classes.jar")); ZipOutputStream own = new ZipOutputStream(out)) {
            for (JarEntry entry : (Iterable<JarEntry>) jar.stream()::iterator) {
                String name = entry.getName();
                if (entry.isDirectory()) {
                    continue;
                }
                try (InputStream in = jar.getInputStream(entry)) {
                    if (name.startsWith(classes + "oakbasket/")) {
                        own.putNextEntry(new ZipEntry(name.substring(classes.length())));
                        in.transferTo(own);
                    } else if (name.startsWith(LIBRARIES) && needed(name.substring(LIBRARIES.length()))) {
                        Files.copy(in, making.resolve(name.substring(LIBRARIES.length())));
                    }
                }
            }
            for (Path library : besides(archive, jar)) {
                Files.copy(library, making.resolve(library.getFileName()));
            }
        }
        try (Stream<Path> others = Files.list(folder)) {
            for (Path old : others.filter(one -> one.getFileName().toString().startsWith("lib-")).toList()) {
                FileSystemUtils.deleteRecursively(old);
            }
        }
        try {
            Files.move(making, laid, StandardCopyOption.ATOMIC_MOVE);
        } catch (IOException anotherWasFirst) {
            FileSystemUtils.deleteRecursively(making);
            if (!Files.isDirectory(laid)) {
                throw anotherWasFirst;
            }
        }
    }

    /** The libraries that lie beside an unpacked archive, as it names them itself. */
    private static List<Path> besides(Path archive, JarFile jar) throws IOException {
        String named = Optional.ofNullable(jar.getManifest()).map(manifest -> manifest.getMainAttributes().getValue(Attributes.Name.CLASS_PATH)).orElse("");
        return Stream.of(named.split(" ")).filter(part -> !part.isEmpty()).map(archive::resolveSibling).filter(part -> needed(part.getFileName().toString())).toList();
    }
}
