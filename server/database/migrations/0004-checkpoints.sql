-- Named moments in the history of a drawing.
CREATE TABLE checkpoints (
  id TEXT PRIMARY KEY,
  drawing_id TEXT NOT NULL REFERENCES drawings (id) ON DELETE CASCADE,
  revision INTEGER NOT NULL,
  name TEXT NOT NULL,
  made_at TEXT NOT NULL
) STRICT;

CREATE INDEX checkpoints_by_drawing ON checkpoints (drawing_id, revision);
