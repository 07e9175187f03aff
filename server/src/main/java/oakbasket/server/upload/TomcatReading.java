package oakbasket.server.upload;

import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.stereotype.Component;

/** Lets Tomcat read request bodies in larger pieces than its 8 KiB. */
@Component
class TomcatReading implements WebServerFactoryCustomizer<TomcatServletWebServerFactory> {

    @Override
    public void customize(TomcatServletWebServerFactory factory) {
        factory.addConnectorCustomizers(connector -> connector.setProperty("socket.appReadBufSize", "65536"));
    }
}
