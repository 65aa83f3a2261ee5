CREATE TABLE drawings (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  revision INTEGER NOT NULL DEFAULT 0,
  line_count INTEGER NOT NULL DEFAULT 0,
  created_at TEXT NOT NULL,
  updated_at TEXT NOT NULL,
  deleted_at TEXT
) STRICT;

-- The journal: append-only, one row an edit; revision n leads from document n - 1 to document n.
CREATE TABLE edits (
  drawing_id TEXT NOT NULL REFERENCES drawings (id),
  revision INTEGER NOT NULL,
  edit_id TEXT NOT NULL,
  kind TEXT NOT NULL CHECK (kind IN ('edit', 'undo', 'redo')),
  label TEXT NOT NULL,
  patches TEXT NOT NULL,
  inverse TEXT NOT NULL,
  made_at TEXT NOT NULL,
  PRIMARY KEY (drawing_id, revision),
  UNIQUE (drawing_id, edit_id)
) STRICT;

-- Whole documents at some revisions, so that a drawing opens without replaying its life.
CREATE TABLE snapshots (
  drawing_id TEXT NOT NULL REFERENCES drawings (id),
  revision INTEGER NOT NULL,
  document TEXT NOT NULL,
  PRIMARY KEY (drawing_id, revision)
) STRICT;

CREATE TABLE images (
  sha256 TEXT PRIMARY KEY,
  media_type TEXT NOT NULL,
  width INTEGER NOT NULL,
  height INTEGER NOT NULL,
  bytes BLOB NOT NULL,
  created_at TEXT NOT NULL
) STRICT;
