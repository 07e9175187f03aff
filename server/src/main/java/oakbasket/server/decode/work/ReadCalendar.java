package oakbasket.server.decode.work;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;

/**
 * Reads the whole days of an iCalendar file (RFC 5545).
 *
 * @param today around which days are looked for
 */
public record ReadCalendar(LocalDate today) implements DecodeWork<CalendarFile> {

    @Override
    public CalendarFile work(Path file) throws IOException {
        return CalendarFile.read(Files.readAllBytes(file), today);
    }

    @Override
    public Class<CalendarFile> answers() {
        return CalendarFile.class;
    }
}
