package oakbasket.server.clock;

import java.time.Clock;
import java.time.ZoneOffset;
import oakbasket.server.Settings;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The one clock that everything asks. */
@Configuration(proxyBeanMethods = false)
class ClockConfig {

    @Bean
    Clock clock(Settings settings) {
        return settings.clock() == null ? Clock.systemUTC() : Clock.fixed(settings.clock(), ZoneOffset.UTC);
    }
}
