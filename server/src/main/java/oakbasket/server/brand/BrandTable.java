package oakbasket.server.brand;

import java.util.Optional;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;

/** All SQL of the tables brand and brand_logo. */
@Repository
class BrandTable {

    private final JdbcClient jdbc;

    BrandTable(JdbcClient jdbc) {
        this.jdbc = jdbc;
    }

    Optional<Face> face() {
        return jdbc.sql("SELECT name, colour, background, logo, contact, privacy, version FROM brand").query(Face.class).optional();
    }

    void put(Face face) {
        jdbc.sql("""
                MERGE INTO brand (id, name, colour, background, logo, contact, privacy, version) KEY (id)
                VALUES (1, :name, :colour, :background, :logo, :contact, :privacy, :version)""").param("name", face.name()).param("colour", face.colour()).param("background", face.background())
                .param("logo", face.logo()).param("contact", face.contact()).param("privacy", face.privacy()).param("version", face.version()).update();
    }

    int logos() {
        return jdbc.sql("SELECT COUNT(*) FROM brand_logo").query(Integer.class).single();
    }

    void putLogo(String hash, byte[] content, int width, int height) {
        jdbc.sql("MERGE INTO brand_logo (hash, content, width, height) KEY (hash) VALUES (:hash, :content, :width, :height)").param("hash", hash).param("content", content).param("width", width)
                .param("height", height).update();
    }

    /** Forgets the pictures that are not in use. */
    void dropOthers(String kept) {
        jdbc.sql("DELETE FROM brand_logo WHERE hash <> :kept").param("kept", kept).update();
    }

    Optional<byte[]> logo(String hash) {
        return jdbc.sql("SELECT content FROM brand_logo WHERE hash = :hash").param("hash", hash).query((row, n) -> row.getBytes(1)).optional();
    }
}
