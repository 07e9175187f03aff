package oakbasket.server.mailbox;

import oakbasket.server.Settings;
import oakbasket.server.Settings.MailboxSettings;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** Reads the mailbox of {@code oakbasket.mailbox.host} where one is named; without it nothing is read. */
@Configuration(proxyBeanMethods = false)
class MailboxConfig {

    @Bean
    @ConditionalOnProperty("oakbasket.mailbox.host")
    Mailbox mailbox(Settings settings) {
        Settings.MailboxSettings own = settings.mailbox();
        if (own == null || settings.collectingAddress() == null) {
            throw new IllegalStateException("A mailbox is set but not its address. Set oakbasket.collecting-address, for example to papers@example.org");
        }
        return new ImapMailbox(own);
    }

    /** The mailbox of the pretend post office. */
    @Bean
    @ConditionalOnProperty("oakbasket.post-office")
    Mailbox pretendMail(MailboxSettings pretend) {
        return new ImapMailbox(pretend);
    }
}
