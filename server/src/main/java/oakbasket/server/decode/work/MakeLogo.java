package oakbasket.server.decode.work;

import java.nio.file.Path;

/** Makes a logo of whatever picture somebody chose. */
public record MakeLogo() implements DecodeWork<MakeLogo.Logo> {

    /** A picture that can be kept; its sides in pixels. */
    public record Logo(byte[] png, int width, int height) {
    }

    @Override
    public Logo work(Path file) {
        return LogoMaker.of(file);
    }

    @Override
    public Class<Logo> answers() {
        return Logo.class;
    }
}
