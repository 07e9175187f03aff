package oakbasket.server.postoffice;

import com.icegreen.greenmail.Managers;
import com.icegreen.greenmail.server.ProtocolHandler;
import com.icegreen.greenmail.smtp.SmtpConnection;
import com.icegreen.greenmail.smtp.SmtpHandler;
import com.icegreen.greenmail.smtp.SmtpManager;
import com.icegreen.greenmail.smtp.SmtpServer;
import com.icegreen.greenmail.smtp.SmtpState;
import com.icegreen.greenmail.smtp.commands.RcptCommand;
import com.icegreen.greenmail.smtp.commands.SmtpCommand;
import com.icegreen.greenmail.smtp.commands.SmtpCommandRegistry;
import com.icegreen.greenmail.util.ServerSetup;
import java.net.Socket;
import java.util.Locale;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import oakbasket.server.words.Words;
import org.jspecify.annotations.Nullable;

/** A mail server that refuses or defers recipients as it is told. */
final class MoodyServer extends SmtpServer {

    private static final Pattern ADDRESS = Pattern.compile("<([^<>]*)>");

    private final Managers all;
    private final Words words;
    private final Function<String, Mood> moods;

    /** @param moods what is done with letters to an address in small letters */
    MoodyServer(ServerSetup setup, Managers managers, Words words, Function<String, Mood> moods) {
        super(setup, managers);
        this.all = managers;
        this.words = words;
        this.moods = moods;
    }

    @Override
    protected ProtocolHandler createProtocolHandler(Socket socket) {
        return new SmtpHandler(new Registry(), all.getSmtpManager(), socket);
    }

    private final class Registry extends SmtpCommandRegistry {
        @Override
        public @Nullable SmtpCommand getCommand(String name) {
            return "RCPT".equalsIgnoreCase(name) ? new MoodyRecipient() : super.getCommand(name);
        }
    }

    private final class MoodyRecipient extends RcptCommand {
        @Override
        public void execute(SmtpConnection connection, SmtpState state, SmtpManager manager, String line) {
            Matcher address = ADDRESS.matcher(line);
            Mood mood = address.find() ? moods.apply(address.group(1).toLowerCase(Locale.ROOT)) : Mood.TAKE;
            if (mood == Mood.REFUSE || mood == Mood.DEFER) {
                connection.send(words.of(mood == Mood.REFUSE ? "post-office.no-mailbox" : "post-office.later"));
            } else {
                super.execute(connection, state, manager, line);
            }
        }
    }
}
