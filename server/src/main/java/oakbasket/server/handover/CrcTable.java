package oakbasket.server.handover;

import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import oakbasket.server.storage.IdChunks;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the table file_crc. */
@Repository
class CrcTable {

    /** The CRC-32 of content with this hash. */
    record Crc(long fileId, long crc32, byte[] sha256) {
    }

    private final JdbcClient jdbc;

    CrcTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    Map<Long, Crc> of(Collection<Long> files) {
        Map<Long, Crc> found = new HashMap<>();
        IdChunks.ask(files, some -> jdbc.sql("SELECT file_id, crc32, sha256 FROM file_crc WHERE file_id = ANY(?)").param(some).query(Crc.class).list()).forEach(one -> found.put(one.fileId(), one));
        return found;
    }

    void put(List<Crc> some) {
        some.forEach(one -> jdbc.sql("MERGE INTO file_crc (file_id, crc32, sha256) KEY (file_id) VALUES (:file, :crc, :sha)").param("file", one.fileId()).param("crc", one.crc32()).param("sha", one.sha256()).update());
    }
}
