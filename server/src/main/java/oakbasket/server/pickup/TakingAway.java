package oakbasket.server.pickup;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HexFormat;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.stream.Collectors;
import java.util.zip.CRC32;
import oakbasket.core.archive.ZipLayout;
import oakbasket.core.naming.SafeName;
import oakbasket.server.parcel.Parcel;
import oakbasket.server.parcel.ParcelFile;
import oakbasket.server.parcel.ParcelFiles;
import oakbasket.server.parcel.ParcelLink;
import oakbasket.server.parcel.PickUps;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Hash;
import oakbasket.server.storage.Archive;
import oakbasket.server.words.Words;
import org.springframework.stereotype.Service;

/** Files of a parcel as they can be sent, one by one or as an archive. */
@Service
class TakingAway {

    /** Some files of a parcel as one archive. @param files in the order of its entries */
    record Packed(Archive archive, List<ParcelFile> files) {
    }

    private static final String ENDING = ".zip";

    private final ParcelFiles files;
    private final PickUps pickUps;
    private final Words words;

    TakingAway(ParcelFiles files, PickUps pickUps, Words words) {
        this.words = words;
        this.files = files;
        this.pickUps = pickUps;
    }

    /** All files of a parcel. */
    List<ParcelFile> all(Parcel parcel) {
        return files.of(parcel.id());
    }

    /** A file by its number, or 404. */
    ParcelFile numbered(Parcel parcel, int number) {
        return all(parcel).stream().filter(file -> file.number() == number).findFirst().orElseThrow(() -> Problem.notFound("no-file"));
    }

    /** Files by their numbers, or 404. */
    List<ParcelFile> numbered(Parcel parcel, Collection<Integer> numbers) {
        List<ParcelFile> found = all(parcel).stream().filter(file -> numbers.contains(file.number())).toList();
        if (found.isEmpty()) {
            throw Problem.notFound("no-file");
        }
        return found;
    }

    /**
     * The files as one archive, the same each time.
     *
     * @param language in which whoever takes it reads
     * @param present the files; those that cannot be given out are named in a text at the end
     */
    Packed packed(Parcel parcel, ParcelFiles.Present present, Locale language) {
        Words spoken = words.in(language);
        Instant at = Objects.requireNonNullElse(parcel.handedOutAt(), parcel.madeAt());
        String folder = SafeName.of(parcel.title());
        List<ZipLayout.Entry> entries = new ArrayList<>();
        List<Archive.Part> parts = new ArrayList<>();
        MessageDigest seal = Hash.sha256();
        present.there().forEach((file, path) -> {
            ZipLayout.Entry entry = new ZipLayout.Entry(folder + "/" + file.fileName(), file.sizeBytes(), file.crc32(), at);
            entries.add(entry);
            parts.add(new Archive.Part(path, new byte[0]));
            seal.update((entry + "\n").getBytes(StandardCharsets.UTF_8));
            seal.update(Objects.requireNonNull(file.sha256()));
        });
        if (!present.gone().isEmpty()) {
            byte[] named = spoken.of("left-out.parcel", present.gone().stream().map(file -> "- " + file.fileName()).collect(Collectors.joining("\n"))).getBytes(StandardCharsets.UTF_8);
            CRC32 crc = new CRC32();
            crc.update(named);
            entries.add(new ZipLayout.Entry(folder + "/" + SafeName.of(spoken.of("left-out.name")), named.length, crc.getValue(), at));
            parts.add(new Archive.Part(null, named));
            seal.update(named);
        }
        return new Packed(new Archive(folder + ENDING, new ZipLayout(entries), parts, HexFormat.of().formatHex(seal.digest())), List.copyOf(present.there().keySet()));
    }

    /** Begins to take one file away, from a byte on. */
    PickUps.Run begin(ParcelLink link, Parcel parcel, ParcelFile file, long from, String caller) {
        return pickUps.begin(link, parcel.mostPickUps(), List.of(new PickUps.Asked(file, from)), caller);
    }

    /** Begins to take an archive away, from a byte on: of it only those files that lie behind it. */
    PickUps.Run begin(ParcelLink link, Parcel parcel, Packed packed, long from, String caller) {
        List<PickUps.Asked> asked = new ArrayList<>();
        ZipLayout layout = packed.archive().layout();
        for (int n = 0; n < packed.files().size(); n++) {
            long content = layout.contentAt(n);
            ParcelFile file = packed.files().get(n);
            if (from < content + file.sizeBytes()) {
                asked.add(new PickUps.Asked(file, Math.max(0, from - content)));
            }
        }
        return pickUps.begin(link, parcel.mostPickUps(), asked, caller);
    }
}
