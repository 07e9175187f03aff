package oakbasket.server.decode;

import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.util.List;
import java.util.stream.Stream;
import oakbasket.core.fault.Fault;
import oakbasket.server.problem.Problem;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What goes through the pipes between the server and a child: frames of a kind, a length and JSON. */
final class Frames {

    /** What an answer is. */
    enum Kind {
        DONE(0),
        /** The file was refused, with words for people. */
        REFUSED(1),
        /** The file cannot be decoded; the child goes on. */
        DAMAGED(2),
        /** The program itself has a mistake. */
        FAULT(3);

        private final int code;

        Kind(int code) {
            this.code = code;
        }
    }

    /** What a child is asked. @param work the class of the record that {@code about} is */
    record Question(String work, String path, JsonNode about) {
    }

    /** A refusal on its way. */
    record Refusal(Problem.Kind kind, String code, List<Object> arguments, List<Fault> faults) {

        static Refusal of(Problem problem) {
            return new Refusal(problem.kind(), problem.code(), problem.arguments(), problem.faults());
        }

        Problem problem() {
            Problem problem = Problem.of(kind, code, arguments.toArray());
            faults.forEach(problem::at);
            return problem;
        }
    }

    record Frame(Kind kind, byte[] body) {
    }

    /** The longest question: the names of a class and a file, and what little is asked of it. */
    static final int LONGEST_QUESTION = 64 << 10;
    static final JsonMapper JSON = JsonMapper.builder().disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES).build();

    private Frames() {
    }

    static void write(DataOutputStream out, Kind kind, byte[] body) throws IOException {
        out.writeByte(kind.code);
        out.writeInt(body.length);
        out.write(body);
        out.flush();
    }

    /** Reads a frame. @throws IOException when there is none, or it is longer than {@code most} */
    static Frame read(DataInputStream in, int most) throws IOException {
        int code = in.readUnsignedByte();
        Kind kind = Stream.of(Kind.values()).filter(one -> one.code == code).findFirst().orElse(null);
        int length = in.readInt();
        if (kind == null || length < 0 || length > most) {
            throw new IOException("not a frame: kind " + code + ", " + length + " of at most " + most + " bytes");
        }
        byte[] body = in.readNBytes(length);
        if (body.length < length) {
            throw new IOException("cut off after " + body.length + " of " + length + " bytes");
        }
        return new Frame(kind, body);
    }
}
