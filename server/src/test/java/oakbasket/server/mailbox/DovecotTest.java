package oakbasket.server.mailbox;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import oakbasket.server.Settings.MailboxSettings;
import oakbasket.server.words.ShippedWords;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The mailbox against a server that is not ours: Debian's dovecot, filled by swaks (LMTP, RFC 2033), both on loopback ports. */
class DovecotTest {

    private static final String USER = "papers@oak.example.org";
    private static final int IMAP = freePort();
    private static final int IMAPS = freePort();
    private static final int LMTP = freePort();

    @TempDir
    static Path folder;
    private static Process dovecot;

    private record Message(String folder, long number, long size, String text) {
    }

    @BeforeAll
    static void start() throws Exception {
        run("openssl", "req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", "2", "-subj", "/CN=localhost", "-keyout", folder.resolve("key.pem").toString(), "-out", folder.resolve("cert.pem").toString());
        String own = run("id", "-u").strip();
        boolean root = own.equals("0");
        // It keeps no mail of root's; then it is nobody's, in folders that nobody can reach.
        String uid = root ? run("id", "-u", "nobody").strip() : own;
        String gid = root ? run("id", "-g", "nobody").strip() : run("id", "-g").strip();
        String internal = root ? "dovecot" : System.getProperty("user.name");
        String login = root ? "dovenull" : internal;
        for (String name : new String[] {"", "mail", "home"}) {
            Path made = Files.createDirectories(folder.resolve(name));
            Files.setPosixFilePermissions(made, PosixFilePermissions.fromString(name.isEmpty() ? "rwxr-xr-x" : "rwxrwxrwx"));
        }
        Files.writeString(folder.resolve("dovecot.conf"), """
                base_dir = %1$s/run
                state_dir = %1$s/state
                log_path = %1$s/log
                protocols = imap lmtp
                listen = 127.0.0.1
                ssl = yes
                ssl_cert = <%1$s/cert.pem
                ssl_key = <%1$s/key.pem
                disable_plaintext_auth = no
                first_valid_uid = 0
                default_internal_user = %2$s
                default_login_user = %9$s
                default_internal_group = %8$s
                recipient_delimiter = +
                mail_location = maildir:%1$s/mail
                passdb {
                  driver = static
                  args = password=secret
                }
                userdb {
                  driver = static
                  args = uid=%3$s gid=%4$s home=%1$s/home
                }
                service imap-login {
                  chroot =
                  inet_listener imap {
                    port = %5$d
                  }
                  inet_listener imaps {
                    port = %6$d
                    ssl = yes
                  }
                }
                service lmtp {
                  inet_listener lmtp {
                    address = 127.0.0.1
                    port = %7$d
                  }
                }
                service anvil {
                  chroot =
                }
                service stats {
                  chroot =
                }
                """.formatted(folder, internal, uid, gid, IMAP, IMAPS, LMTP, run("id", "-gn", internal).strip(), login));
        dovecot = new ProcessBuilder("dovecot", "-F", "-c", folder.resolve("dovecot.conf").toString()).redirectErrorStream(true).redirectOutput(folder.resolve("out").toFile()).start();
        for (int port : new int[] {IMAP, LMTP}) {
            await(port);
        }
    }

    @AfterAll
    static void stop() throws InterruptedException {
        dovecot.destroy();
        dovecot.waitFor(10, TimeUnit.SECONDS);
    }

    @Test
    void messagesAreReadOnceByTheirNumbersWhoeverLookedAtThem() throws Exception {
        Files.writeString(folder.resolve("map.txt"), "The map of the Fenn");
        swaks("papers+k1-abc@oak.example.org", "First", "--attach", "@" + folder.resolve("map.txt"));
        swaks(USER, "Second");
        Mailbox mailbox = new ImapMailbox(settings(IMAP, "NONE", USER, "secret", "INBOX", ""));
        mailbox.check();
        List<Message> first = read(mailbox, 0);
        assertThat(first).hasSize(2);
        assertThat(first.get(0).text()).contains("Subject: First", "Delivered-To: papers+k1-abc@oak.example.org", "filename=\"map.txt\"");
        assertThat(first.get(0).size()).isEqualTo(first.get(0).text().length());
        assertThat(read(mailbox, first.get(1).number())).as("nothing new").isEmpty();
        assertThat(read(mailbox, first.get(0).number())).as("seen or not: its number counts").hasSize(1);
        swaks(USER, "Third");
        Mailbox moving = new ImapMailbox(settings(IMAP, "NONE", USER, "secret", "INBOX", "Done"));
        assertThat(read(moving, first.get(1).number()).get(0).text()).contains("Subject: Third");
        assertThat(read(new ImapMailbox(settings(IMAP, "NONE", USER, "secret", "Done", "")), 0)).as("put away").hasSize(1);
    }

    @ParameterizedTest(name = "{0} {1} {2}")
    @CsvSource(delimiter = '|', value = {
        "imaps | TLS      | secret | INBOX   | cannot be encrypted",
        "imap  | STARTTLS | secret | INBOX   | cannot be encrypted",
        "imap  | NONE     | wrong  | INBOX   | does not accept the name or the password",
        "imap  | NONE     | secret | Nowhere | There is no folder of this name in the mailbox: Nowhere",
        "none  | NONE     | secret | INBOX   | Nothing listens on port"})
    void whatIsWrongIsSaidInWords(String port, String security, String password, String name, String words) {
        int number = port.equals("imaps") ? IMAPS : port.equals("imap") ? IMAP : 1;
        assertThatThrownBy(() -> new ImapMailbox(settings(number, security, USER, password, name, "")).check()).isInstanceOfSatisfying(MailboxTrouble.class,
                trouble -> assertThat(ShippedWords.get().of(trouble.reason())).contains(words));
    }

    private static MailboxSettings settings(int port, String security, String user, String password, String name, String done) {
        return new MailboxSettings("127.0.0.1", port, security, user, password, null, "", name, done, "");
    }

    private static List<Message> read(Mailbox mailbox, long last) throws MailboxTrouble {
        List<Message> messages = new ArrayList<>();
        mailbox.read(folder -> last, (folder, number, size, in) -> messages.add(new Message(folder, number, size, new String(in.readAllBytes(), StandardCharsets.UTF_8))), 100);
        return messages;
    }

    private static void swaks(String to, String subject, String... more) throws Exception {
        String[] command = Stream.concat(Stream.of("swaks", "--protocol", "LMTP", "--server", "127.0.0.1", "--port", String.valueOf(LMTP), "--from", "ada@example.org", "--to", to, "--header", "Subject: " + subject,
                "--body", "Here it is"), Stream.of(more)).toArray(String[]::new);
        run(command);
    }

    private static String run(String... command) throws Exception {
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(process.waitFor()).as("%s: %s", command[0], said).isZero();
        return said;
    }

    private static void await(int port) throws Exception {
        for (int tries = 0;; tries++) {
            try (Socket tried = new Socket("127.0.0.1", port)) {
                return;
            } catch (IOException notYet) {
                if (tries > 200 || !dovecot.isAlive()) {
                    throw new IllegalStateException(Files.readString(folder.resolve("out")), notYet);
                }
                Thread.sleep(50);
            }
        }
    }

    private static int freePort() {
        try (ServerSocket socket = new ServerSocket(0)) {
            return socket.getLocalPort();
        } catch (IOException problem) {
            throw new IllegalStateException(problem);
        }
    }
}
