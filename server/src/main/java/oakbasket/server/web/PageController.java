package oakbasket.server.web;

import org.springframework.core.io.ClassPathResource;
import org.springframework.core.io.Resource;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;

/** Serves the two pages, the desk and the basket page; their parts come from memory (http.AssetsInMemory). */
@Controller
class PageController {

    @GetMapping({"/", "/sign-in", "/welcome", "/rounds", "/rounds/**", "/contacts", "/contacts/**", "/post", "/setup", "/setup/**"})
    ResponseEntity<Resource> desk() {
        return page("desk.html");
    }

    /** Also where a link was copied badly: the page then says what to do. */
    @GetMapping({"/b", "/b/**", "/B/**", "/rehearsal/{round}"})
    ResponseEntity<Resource> basket() {
        return page("basket.html");
    }

    @GetMapping({"/favicon.ico", "/favicon.svg"})
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
