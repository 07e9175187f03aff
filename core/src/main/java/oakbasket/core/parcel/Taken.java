package oakbasket.core.parcel;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * Which bytes of a file have been taken away in one pick-up, which may come in pieces (RFC 9110, range requests).
 *
 * @param pieces in ascending order; no two touch
 */
public record Taken(List<Piece> pieces) {

    /** Bytes from one place to before another. */
    public record Piece(long from, long to) {
    }

    /** Nothing yet. */
    public static final Taken NOTHING = new Taken(List.of());
    /** So much may have left here and not be noted, or be noted and never have arrived, in what lies between two ends of a line that broke. */
    static final long ON_THE_LINE = 16L << 20;
    /** All but a twentieth. */
    static final long NEARLY_WHOLE_PART = 20;
    /** As many pieces are told apart; of what comes beyond that only what touches a known piece is noted. */
    public static final int MOST_PIECES = 100;

    public Taken {
        pieces = List.copyOf(pieces);
    }

    /** The same with further bytes. */
    public Taken with(long from, long to) {
        if (to <= from) {
            return this;
        }
        List<Piece> merged = new ArrayList<>();
        long low = from;
        long high = to;
        for (Piece piece : pieces) {
            if (piece.to() < low || piece.from() > high) {
                merged.add(piece);
            } else {
                low = Math.min(low, piece.from());
                high = Math.max(high, piece.to());
            }
        }
        if (merged.size() >= MOST_PIECES) {
            return this;
        }
        int at = 0;
        while (at < merged.size() && merged.get(at).from() < low) {
            at++;
        }
        merged.add(at, new Piece(low, high));
        return new Taken(merged);
    }

    /**
     * The same where somebody asks for what comes from a place on: whoever goes on shortly behind what was noted has what lies between, which was on the line when it broke and could not be noted.
     *
     * @param from the first byte that is asked for
     */
    public Taken askedFrom(long from) {
        return pieces.stream().filter(piece -> piece.to() < from && from - piece.to() <= ON_THE_LINE).findFirst().map(piece -> with(piece.to(), from)).orElse(this);
    }

    /** Whether so much of a file of this length was taken that it counts as taken where that is limited, even if the last byte never goes. */
    public boolean nearlyWhole(long bytes) {
        return whole(bytes) || bytes() >= bytes - bytes / NEARLY_WHOLE_PART;
    }

    /** Whether every byte of a file of this length was taken; of an empty file there is none to take. */
    public boolean whole(long bytes) {
        return firstMissing() >= bytes;
    }

    /** The first byte that was not taken. */
    public long firstMissing() {
        return pieces.isEmpty() || pieces.get(0).from() > 0 ? 0 : pieces.get(0).to();
    }

    /** How many bytes were taken. */
    public long bytes() {
        return pieces.stream().mapToLong(piece -> piece.to() - piece.from()).sum();
    }

    /** As one text, such as {@code 0-100,200-300}. */
    public String written() {
        return pieces.stream().map(piece -> piece.from() + "-" + piece.to()).collect(Collectors.joining(","));
    }

    /** What {@link #written} wrote. */
    public static Taken read(String written) {
        return written.isEmpty() ? NOTHING : new Taken(Stream.of(written.split(",")).map(one -> one.split("-")).map(ends -> new Piece(Long.parseLong(ends[0]), Long.parseLong(ends[1]))).toList());
    }
}
