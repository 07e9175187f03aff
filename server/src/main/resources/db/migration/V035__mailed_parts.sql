-- By what it holds, a logo that stands under each of somebody's messages is known again.
ALTER TABLE inward_part ADD COLUMN sha256 BINARY(32);
CREATE INDEX inward_part_by_sha256 ON inward_part (sha256);
