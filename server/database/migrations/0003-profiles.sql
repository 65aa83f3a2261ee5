-- The shelf of own profiles, in order; `course` is the JSON of stops and tapers.
CREATE TABLE profiles (
  id TEXT PRIMARY KEY,
  place INTEGER NOT NULL,
  name TEXT NOT NULL,
  course TEXT NOT NULL
) STRICT;
