-- The small picture of each drawing, as of some revision: made when it is asked for, kept so that the Desk opens at once.
CREATE TABLE thumbnails (
  drawing_id TEXT PRIMARY KEY REFERENCES drawings (id),
  revision INTEGER NOT NULL,
  svg TEXT NOT NULL
) STRICT;
