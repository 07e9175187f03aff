package oakbasket.server.parcel;

import java.util.List;

/** Files were taken away whole by somebody outside. @param caller from where */
public record TakenOutside(long linkId, List<Long> files, String caller) {

    public TakenOutside {
        files = List.copyOf(files);
    }
}
