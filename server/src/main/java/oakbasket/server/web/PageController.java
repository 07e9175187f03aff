package oakbasket.server.web;

import java.io.IOException;
import java.io.UncheckedIOException;
import oakbasket.server.security.FromOutside;
import org.springframework.core.io.ClassPathResource;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;

/** Serves the page of the desk; its parts come from memory (http.AssetsInMemory). */
@Controller
@FromOutside
class PageController {

    private final byte[] desk;
    private final byte[] icon;

    /** Reads the page once: a classpath that cannot be read for a moment would otherwise be answered with an empty page, and nobody would hear of it. */
    PageController() {
        desk = read("desk.html");
        icon = read("favicon.svg");
    }

    @GetMapping({"/", "/sign-in", "/welcome", "/join", "/new-password", "/forgotten", "/team", "/audit", "/rounds", "/rounds/**", "/contacts", "/contacts/**", "/post", "/post/**", "/post-office", "/links", "/quarantine", "/filing", "/journal", "/tray", "/folders", "/parcels", "/parcels/**", "/exchanges", "/exchanges/**", "/setup", "/setup/**"})
    ResponseEntity<byte[]> desk() {
        return page(desk);
    }

    @GetMapping({"/favicon.ico", "/favicon.svg"})
    ResponseEntity<byte[]> icon() {
        return ResponseEntity.ok().contentType(MediaType.valueOf("image/svg+xml")).body(icon);
    }

    /** Links are private; nothing here is for search engines. */
    @GetMapping("/robots.txt")
    ResponseEntity<String> robots() {
        return ResponseEntity.ok().contentType(MediaType.TEXT_PLAIN).body("User-agent: *\nDisallow: /\n");
    }

    private static ResponseEntity<byte[]> page(byte[] html) {
        return ResponseEntity.ok().contentType(MediaType.valueOf("text/html;charset=UTF-8")).cacheControl(CacheControl.noStore()).body(html);
    }

    private static byte[] read(String name) {
        try {
            return new ClassPathResource("static/" + name).getContentAsByteArray();
        } catch (IOException missing) {
            throw new UncheckedIOException(missing);
        }
    }
}
