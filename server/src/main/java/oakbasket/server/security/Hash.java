package oakbasket.server.security;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;

/** SHA-256 (FIPS 180-4). */
public final class Hash {

    private Hash() {
    }

    /** A fresh digest. */
    public static MessageDigest sha256() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    /** The hash of a secret, by which it is found without being kept. */
    public static byte[] of(String secret) {
        return sha256().digest(secret.getBytes(StandardCharsets.UTF_8));
    }

    /** The hash of what a file holds, read a piece at a time. */
    public static byte[] of(Path file) throws IOException {
        MessageDigest digest = sha256();
        try (InputStream in = Files.newInputStream(file)) {
            byte[] buffer = new byte[1 << 16];
            for (int read = in.read(buffer); read >= 0; read = in.read(buffer)) {
                digest.update(buffer, 0, read);
            }
        }
        return digest.digest();
    }
}
