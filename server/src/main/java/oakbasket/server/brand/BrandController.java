package oakbasket.server.brand;

import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import oakbasket.core.team.Permission;
import oakbasket.server.problem.Problem;
import oakbasket.server.security.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The office's own face for people outside. */
@RestController
@Needs(Permission.SET_UP)
class BrandController {

    /** A face as it is typed; {@code logo} is the hash of a picture that was put in. */
    record TypedFace(@Schema(maxLength = Brand.LONGEST_NAME) @Nullable String name, @Nullable String colour, @Nullable String background, @Nullable String logo,
            @Schema(maxLength = Brand.LONGEST_CONTACT) @Nullable String contact, @Schema(maxLength = Brand.LONGEST_PRIVACY) @Nullable String privacy, int version) {
    }

    record TypedColours(@Nullable String colour, @Nullable String background) {
    }

    record LogoPutIn(String logo) {
    }

    private final Brand brand;

    BrandController(Brand brand) {
        this.brand = brand;
    }

    @GetMapping("/api/brand")
    Face face() {
        return brand.now();
    }

    @PutMapping("/api/brand")
    Face changeFace(@RequestBody TypedFace typed) {
        return brand.change(face(typed));
    }

    /** What is to be said of colours, before they are kept. */
    @PostMapping("/api/brand/colours")
    Brand.ColoursSeen lookAtColours(@RequestBody TypedColours typed) {
        return brand.look(text(typed.colour()), text(typed.background()));
    }

    /** Puts a picture in, to be tried as a logo. */
    @PostMapping("/api/brand/logos")
    @ResponseStatus(HttpStatus.CREATED)
    LogoPutIn putLogoIn(HttpServletRequest request) throws IOException {
        byte[] content = request.getInputStream().readNBytes(Brand.MOST_LOGO_BYTES + 1);
        if (content.length > Brand.MOST_LOGO_BYTES) {
            throw Problem.of(Problem.Kind.TOO_LARGE, "file-too-large", Brand.MOST_LOGO_BYTES >> 20);
        }
        return new LogoPutIn(brand.addLogo(content));
    }

    static Face face(TypedFace typed) {
        return new Face(text(typed.name()), text(typed.colour()), text(typed.background()), text(typed.logo()), text(typed.contact()), text(typed.privacy()), typed.version());
    }

    private static String text(@Nullable String given) {
        return given == null ? "" : given.strip();
    }
}
