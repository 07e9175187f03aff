package oakbasket.server.words;

import java.io.IOException;
import java.io.Reader;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Properties;
import org.springframework.boot.env.YamlPropertySourceLoader;
import org.springframework.context.support.ResourceBundleMessageSource;
import org.springframework.core.io.ClassPathResource;

/** The words that ship, without the application around them. */
public final class ShippedWords {

    private ShippedWords() {
    }

    public static Words get() {
        ResourceBundleMessageSource messages = new ResourceBundleMessageSource();
        messages.setBasenames(basenames().split(","));
        messages.setDefaultEncoding("UTF-8");
        return new Words(messages);
    }

    /** All of them, by their keys. */
    public static Properties all() {
        Properties all = new Properties();
        for (String basename : basenames().split(",")) {
            try (Reader in = Files.newBufferedReader(Path.of("src/main/resources", basename + ".properties"))) {
                all.load(in);
            } catch (IOException unreadable) {
                throw new UncheckedIOException(unreadable);
            }
        }
        return all;
    }

    private static String basenames() {
        try {
            return String.valueOf(new YamlPropertySourceLoader().load("settings", new ClassPathResource("application.yaml")).get(0).getProperty("spring.messages.basename"));
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }
}
