package oakbasket.server.storage;

import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The disk that files are received on. */
@Configuration(proxyBeanMethods = false)
class DiskConfig {

    @Bean
    Disk disk() {
        return Disk.ofThisMachine();
    }
}
