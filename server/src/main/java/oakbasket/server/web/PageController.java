package oakbasket.server.web;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Duration;
import org.springframework.core.io.ClassPathResource;
import org.springframework.core.io.Resource;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.MediaTypeFactory;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;

/** Serves the two pages, the desk and the basket page, and their parts. */
@Controller
class PageController {

    @GetMapping({"/", "/sign-in", "/welcome", "/rounds", "/rounds/**", "/contacts", "/contacts/**", "/post", "/setup", "/setup/**"})
    ResponseEntity<Resource> desk() {
        return page("desk.html");
    }

    @GetMapping({"/b/{token}", "/rehearsal/{round}"})
    ResponseEntity<Resource> basket() {
        return page("basket.html");
    }

    @GetMapping({"/assets/**", "/favicon.svg"})
    ResponseEntity<Resource> part(HttpServletRequest request) {
        String path = request.getRequestURI();
        Resource resource = new ClassPathResource("static" + path);
        if (path.contains("..") || path.contains("%") || path.endsWith("/") || !resource.isReadable()) {
            throw Problem.notFound("not-found");
        }
        return ResponseEntity.ok()
                .contentType(MediaTypeFactory.getMediaType(resource).orElse(path.endsWith(".mjs") ? MediaType.valueOf("text/javascript") : MediaType.APPLICATION_OCTET_STREAM))
                .cacheControl(CacheControl.maxAge(Duration.ofDays(365)).cachePublic().immutable())
                .body(resource);
    }

    @GetMapping("/favicon.ico")
    ResponseEntity<Resource> icon() {
        return ResponseEntity.ok().contentType(MediaType.valueOf("image/svg+xml")).body(new ClassPathResource("static/favicon.svg"));
    }

    /** Links are private; nothing here is for search engines. */
    @GetMapping("/robots.txt")
    ResponseEntity<String> robots() {
        return ResponseEntity.ok().contentType(MediaType.TEXT_PLAIN).body("User-agent: *\nDisallow: /\n");
    }

    private static ResponseEntity<Resource> page(String name) {
        return ResponseEntity.ok().contentType(MediaType.valueOf("text/html;charset=UTF-8")).cacheControl(CacheControl.noStore())
                .body(new ClassPathResource("static/" + name));
    }
}
