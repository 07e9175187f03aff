package oakbasket.server.security;

import java.nio.charset.StandardCharsets;
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
}
