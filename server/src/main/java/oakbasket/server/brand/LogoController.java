package oakbasket.server.brand;

import java.time.Duration;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.FromOutside;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** Serves logos, to anybody: they stand on the pages of people outside. What a hash names never changes. */
@RestController
@FromOutside
class LogoController {

    private static final Duration KEPT = Duration.ofDays(365);

    private final Brand brand;

    LogoController(Brand brand) {
        this.brand = brand;
    }

    @GetMapping("/brand/{hash}.png")
    ResponseEntity<byte[]> logo(@PathVariable String hash) {
        return ResponseEntity.ok().contentType(MediaType.IMAGE_PNG).cacheControl(CacheControl.maxAge(KEPT).cachePublic().immutable()).body(brand.logo(hash).orElseThrow(() -> Problem.notFound("not-found")));
    }
}
