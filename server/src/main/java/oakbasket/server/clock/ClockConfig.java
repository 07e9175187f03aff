package oakbasket.server.clock;

import java.time.Clock;
import java.time.Duration;
import java.time.ZoneOffset;
import oakbasket.server.Settings;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The one clock that everything asks. */
@Configuration(proxyBeanMethods = false)
class ClockConfig {

    @Bean
    Clock clock(Settings settings) {
        Clock wanted = wanted(settings);
        return settings.postOffice() ? new MovableClock(wanted) : wanted;
    }

    private static Clock wanted(Settings settings) {
        Clock real = Clock.systemUTC();
        if (settings.clock() == null) {
            return real;
        }
        return settings.clockTicks() ? Clock.offset(real, Duration.between(real.instant(), settings.clock())) : Clock.fixed(settings.clock(), ZoneOffset.UTC);
    }
}
