package oakbasket.server.web;

import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.servers.Server;
import java.util.List;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The head of the API description. */
@Configuration(proxyBeanMethods = false)
class OpenApiConfig {

    @Bean
    OpenAPI description() {
        return new OpenAPI()
                .info(new Info().title("Oak Basket").version("1").description("""
                        The desk (session cookie and CSRF header) and the sender's side (request link in the header Oak-Link). \
                        Every 4xx and 5xx is a problem detail of RFC 9457. Files come in by tus 1.0.0 at /api/uploads."""))
                .servers(List.of(new Server().url("/")));
    }
}
