package oakbasket.server.security;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.util.Arrays;
import java.util.Base64;
import java.util.function.UnaryOperator;
import javax.crypto.Cipher;
import javax.crypto.Mac;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.SecretKeySpec;
import oakbasket.server.storage.DataFolder;
import org.springframework.stereotype.Component;

/** Seals and signs with a key that lies beside the database, never in it: a copy of the database alone opens nothing. */
@Component
public class SecretKeys {

    private static final String SIGNING = "signing.key";
    private static final int NONCE_BYTES = 12;
    private static final int TAG_BITS = 128;
    private static final int TOKEN_BYTES = 20;

    private final SecureRandom random = new SecureRandom();
    private final byte[] sealing;
    private final byte[] signing;

    SecretKeys(DataFolder folder) {
        this.sealing = readOrMake(folder.keys().resolve("sealing.key"));
        this.signing = readOrMake(folder.keys().resolve(SIGNING));
    }

    /** Random bytes fit for secrets. */
    public byte[] random(int bytes) {
        byte[] made = new byte[bytes];
        random.nextBytes(made);
        return made;
    }

    /** The secret part of an address: 160 random bits. */
    public String token() {
        return Base64.getUrlEncoder().withoutPadding().encodeToString(random(TOKEN_BYTES));
    }

    /** The generator behind {@link #random}. */
    public SecureRandom generator() {
        return random;
    }

    /** AES-256-GCM with a fresh nonce in front. */
    public byte[] seal(byte[] plain) {
        byte[] nonce = random(NONCE_BYTES);
        byte[] sealed = crypt(Cipher.ENCRYPT_MODE, nonce, plain, 0);
        byte[] both = Arrays.copyOf(nonce, nonce.length + sealed.length);
        System.arraycopy(sealed, 0, both, nonce.length, sealed.length);
        return both;
    }

    /** What {@link #seal} was given. */
    public byte[] open(byte[] sealed) {
        return crypt(Cipher.DECRYPT_MODE, Arrays.copyOf(sealed, NONCE_BYTES), sealed, NONCE_BYTES);
    }

    /** HMAC-SHA-256. */
    public byte[] sign(byte[] message) {
        return sign(signing, message);
    }

    /** What signs as {@link #sign(byte[])} does, for a command that starts no server. @param keys the folder of the keys; without a key in it, no signature fits */
    public static UnaryOperator<byte[]> signerIn(Path keys) {
        return message -> {
            try {
                return sign(Files.readAllBytes(keys.resolve(SIGNING)), message);
            } catch (IOException none) {
                return new byte[0];
            }
        };
    }

    private static byte[] sign(byte[] key, byte[] message) {
        try {
            Mac mac = Mac.getInstance("HmacSHA256");
            mac.init(new SecretKeySpec(key, "HmacSHA256"));
            return mac.doFinal(message);
        } catch (GeneralSecurityException impossible) {
            throw new IllegalStateException(impossible);
        }
    }

    private byte[] crypt(int mode, byte[] nonce, byte[] input, int from) {
        try {
            Cipher cipher = Cipher.getInstance("AES/GCM/NoPadding");
            cipher.init(mode, new SecretKeySpec(sealing, "AES"), new GCMParameterSpec(TAG_BITS, nonce));
            return cipher.doFinal(input, from, input.length - from);
        } catch (GeneralSecurityException problem) {
            throw new IllegalStateException("Cannot open what was sealed with another key. Restore keys/sealing.key from the backup that the database came from", problem);
        }
    }

    private byte[] readOrMake(Path file) {
        try {
            if (!Files.exists(file)) {
                Path fresh = file.resolveSibling(file.getFileName() + ".new");
                Files.deleteIfExists(fresh);
                if (file.getFileSystem().supportedFileAttributeViews().contains("posix")) {
                    Files.createFile(fresh, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
                }
                Files.write(fresh, random(32));
                Files.move(fresh, file);
            }
            byte[] key = Files.readAllBytes(file);
            if (key.length != 32) {
                throw new IllegalStateException("The key file " + file + " has " + key.length + " bytes instead of 32. Restore it from a backup");
            }
            return key;
        } catch (IOException problem) {
            throw new UncheckedIOException("Cannot read or make the key file " + file, problem);
        }
    }
}
