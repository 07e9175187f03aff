package oakbasket.server;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.concurrent.atomic.AtomicReference;
import java.util.stream.Stream;
import oakbasket.core.identity.MailAddress;
import oakbasket.core.identity.Person;
import oakbasket.server.account.AccountService;
import oakbasket.server.storage.Disk;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.boot.web.server.servlet.context.ServletWebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Primary;

/** The real application, started once for all tests of this module, on a free port with its data in a fresh folder a clock the tests set, and a disk they can break. */
final class RunningApp {

    static final String EMAIL = "robin@example.org";
    static final String PASSWORD = "willow by the water";
    static final SettableClock CLOCK = new SettableClock();
    static final BreakableDisk DISK = new BreakableDisk();
    static final Path DATA = freshFolder();
    private static final ConfigurableApplicationContext CONTEXT = start();
    static final String URL = "http://localhost:" + ((ServletWebServerApplicationContext) CONTEXT).getWebServer().getPort();

    private RunningApp() {
    }

    static <T> T bean(Class<T> type) {
        return CONTEXT.getBean(type);
    }

    /** Starts another application on its own data folder. */
    static ConfigurableApplicationContext startOn(Path data, String... more) {
        return new SpringApplicationBuilder(OakBasketApplication.class, StandIns.class).run(Stream.concat(Stream.of("--server.port=0", "--oakbasket.data=" + data,
                "--oakbasket.office=Fennbrook Catchment Partnership", "--oakbasket.series-every=PT0.2S", "--oakbasket.post-every=P1D", "--oakbasket.reminders-every=P1D"),
                Stream.of(more)).toArray(String[]::new));
    }

    private static ConfigurableApplicationContext start() {
        ConfigurableApplicationContext context = startOn(DATA);
        context.getBean(AccountService.class).make(new Person("Robin Fenn", MailAddress.parse(EMAIL)), PASSWORD);
        return context;
    }

    static Path freshFolder() {
        try {
            Path folder = Files.createTempDirectory("oak-basket-test");
            Runtime.getRuntime().addShutdownHook(new Thread(() -> org.springframework.util.FileSystemUtils.deleteRecursively(folder.toFile())));
            return folder;
        } catch (IOException problem) {
            throw new UncheckedIOException(problem);
        }
    }

    /** What stands in for the real one; no {@code @Configuration}, so that applications of other tests do not find it. */
    static class StandIns {
        @Bean
        @Primary
        Clock settableClock() {
            return CLOCK;
        }

        @Bean
        @Primary
        Disk breakableDisk() {
            return DISK;
        }
    }

    /** Stands where it was set, and moves on by a millisecond each time it is asked. */
    static final class SettableClock extends Clock {
        private final AtomicReference<Instant> now = new AtomicReference<>(Instant.parse("2026-06-01T09:00:00Z"));

        void set(Instant instant) {
            now.set(instant);
        }

        @Override
        public Instant instant() {
            return now.updateAndGet(instant -> instant.plusMillis(1));
        }

        @Override
        public ZoneId getZone() {
            return ZoneOffset.UTC;
        }

        @Override
        public Clock withZone(ZoneId zone) {
            throw new UnsupportedOperationException();
        }
    }
}
