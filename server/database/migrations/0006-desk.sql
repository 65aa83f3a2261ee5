-- Shelves of the Desk: a drawing lies on one, or on none.
CREATE TABLE shelves (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL UNIQUE COLLATE NOCASE,
  place INTEGER NOT NULL
) STRICT;

ALTER TABLE drawings ADD COLUMN shelf_id TEXT REFERENCES shelves (id) ON DELETE SET NULL;
ALTER TABLE drawings ADD COLUMN is_template INTEGER NOT NULL DEFAULT 0;
-- The farthest pass whose work the drawing holds; filled for older drawings by the step of the same number.
ALTER TABLE drawings ADD COLUMN pass TEXT NOT NULL DEFAULT 'lines';
-- The revision from which the journal still leads on: 0 unless old steps were let go.
ALTER TABLE drawings ADD COLUMN first_revision INTEGER NOT NULL DEFAULT 0;

-- The pass in which an edit was made, where it is known.
ALTER TABLE edits ADD COLUMN pass TEXT;

-- Checkpoints that a first visit to a pass set by itself, and small pictures of all of them.
ALTER TABLE checkpoints ADD COLUMN pass TEXT;
ALTER TABLE checkpoints ADD COLUMN picture TEXT;
CREATE UNIQUE INDEX checkpoints_by_pass ON checkpoints (drawing_id, pass) WHERE pass IS NOT NULL;

-- How many findings Proof had of a drawing, as of some revision.
CREATE TABLE proofs (
  drawing_id TEXT PRIMARY KEY REFERENCES drawings (id) ON DELETE CASCADE,
  revision INTEGER NOT NULL,
  findings INTEGER NOT NULL
) STRICT;
