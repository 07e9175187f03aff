package oakbasket.server.decode.work;

import java.nio.file.Path;

/**
 * Looks at the beginning of a file: text, table or track.
 *
 * @param name what the file is called
 * @param mediaType as found by its content
 */
public record LookAt(String name, String mediaType) implements DecodeWork<Glance> {

    @Override
    public Glance work(Path file) {
        return Glances.of(file, name, mediaType);
    }

    @Override
    public Class<Glance> answers() {
        return Glance.class;
    }
}
