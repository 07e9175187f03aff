package oakbasket.server.postoffice;

import java.time.Clock;
import oakbasket.server.Settings;
import oakbasket.server.Settings.MailboxSettings;
import oakbasket.server.words.Words;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.mail.javamail.JavaMailSenderImpl;

/** Puts the pretend post office where the real servers would be. */
@Configuration(proxyBeanMethods = false)
@ConditionalOnProperty("oakbasket.post-office")
class PostOfficeConfig {

    @Bean
    PretendPostOffice pretendPostOffice(Settings settings, Words words, Clock clock) {
        return new PretendPostOffice(settings, words, clock);
    }

    @Bean
    JavaMailSenderImpl pretendSender(PretendPostOffice office) {
        JavaMailSenderImpl sender = new JavaMailSenderImpl();
        sender.setHost(office.host());
        sender.setPort(office.smtpPort());
        return sender;
    }

    @Bean
    MailboxSettings pretendMailbox(PretendPostOffice office) {
        return new MailboxSettings(office.host(), office.imapPort(), "NONE", PretendPostOffice.COLLECTOR, PretendPostOffice.COLLECTOR, null, "", "INBOX", "", "");
    }
}
