package oakbasket.server.mail;

import oakbasket.server.Settings;
import oakbasket.server.brand.Brand;
import oakbasket.server.storage.DataFolder;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.mail.javamail.JavaMailSenderImpl;

/** Chooses who carries letters: the mail server of {@code spring.mail.host} where one is named, else the stand-in. */
@Configuration(proxyBeanMethods = false)
class MailConfig {

    @Bean
    Mailer mailer(ObjectProvider<JavaMailSenderImpl> server, Settings settings, DataFolder folder, Brand brand) {
        JavaMailSenderImpl sender = server.getIfAvailable();
        String from = settings.letterSender();
        if (sender != null && settings.mailFrom() == null) {
            throw new IllegalStateException("A mail server is set but not the address letters come from. Set oakbasket.mail-from, for example to office@example.org");
        }
        return sender == null ? new FolderMailer(folder.outbox(), from, () -> LetterLook.of(brand.now())) : new SmtpMailer(sender, from, () -> LetterLook.of(brand.now()));
    }
}
