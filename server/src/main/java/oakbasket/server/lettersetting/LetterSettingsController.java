package oakbasket.server.lettersetting;

import io.swagger.v3.oas.annotations.media.Schema;
import oakbasket.core.team.Permission;
import oakbasket.server.security.Needs;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** What all letters of the office have in common. */
@RestController
@Needs(Permission.SET_UP)
class LetterSettingsController {

    record TypedLetterSetting(@Schema(maxLength = LetterSettings.LONGEST_SIGNATURE) @Nullable String signature, @Nullable String replyTo, @Nullable Boolean calendar,
            @Nullable Integer perMinute, @Nullable Integer gapHours, @Nullable String quietFrom, @Nullable String quietTo, @Nullable Integer version) {
    }

    private final LetterSettings settings;

    LetterSettingsController(LetterSettings settings) {
        this.settings = settings;
    }

    @GetMapping("/api/letter-settings")
    LetterSetting now() {
        return settings.now();
    }

    @PutMapping("/api/letter-settings")
    LetterSetting change(@RequestBody TypedLetterSetting typed) {
        LetterSetting now = settings.now();
        return settings.change(new LetterSetting(typed.signature() == null ? "" : typed.signature().replace("\r\n", "\n").replace('\r', '\n'), typed.replyTo() == null ? "" : typed.replyTo(),
                typed.calendar() != null && typed.calendar(), typed.perMinute() == null ? now.perMinute() : typed.perMinute(),
                typed.gapHours() == null ? now.gapHours() : typed.gapHours(), typed.quietFrom() == null ? now.quietFrom() : typed.quietFrom(),
                typed.quietTo() == null ? now.quietTo() : typed.quietTo(), typed.version() == null ? 0 : typed.version()));
    }
}
