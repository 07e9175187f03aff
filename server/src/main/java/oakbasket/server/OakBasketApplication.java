package oakbasket.server;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.context.properties.EnableConfigurationProperties;
import org.springframework.scheduling.annotation.EnableScheduling;

/** Starts Oak Basket. */
@SpringBootApplication
@EnableScheduling
@EnableConfigurationProperties(Settings.class)
public class OakBasketApplication {

    public static void main(String[] args) {
        SpringApplication.run(OakBasketApplication.class, args);
    }
}
