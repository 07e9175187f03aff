package oakbasket.bench;

import java.util.Map;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** What one writes without a thought of strangers: a page, something large to read, something to send JSON to. */
@SpringBootApplication
@RestController
public class PlainApp {

    private static final byte[] LARGE = new byte[1_250_000];

    public static void main(String[] arguments) {
        SpringApplication.run(PlainApp.class, arguments);
    }

    @GetMapping("/")
    String page() {
        return "hello";
    }

    @GetMapping("/large")
    byte[] large() {
        return LARGE;
    }

    @PostMapping("/echo")
    int echo(@RequestBody Map<String, Object> body) {
        return body.size();
    }
}
