package oakbasket.server.teamsetting;

import java.util.Arrays;
import oakbasket.core.team.Permission;
import oakbasket.server.account.PermittedActs;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** Tells those below what the office has settled. */
@Configuration(proxyBeanMethods = false)
class PermittedActsConfig {

    @Bean
    PermittedActs permittedActs(ObjectProvider<TeamSettings> settings) {
        return new PermittedActs(role -> Arrays.stream(Permission.values()).filter(permission -> settings.getObject().may(role, permission)).toList());
    }
}
