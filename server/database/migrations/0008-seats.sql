-- Seats: who works at this Desk. Everybody who worked here before is the first.
CREATE TABLE seats (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL UNIQUE COLLATE NOCASE,
  colour TEXT NOT NULL,
  place INTEGER NOT NULL
) STRICT;
INSERT INTO seats (id, name, colour, place) VALUES (lower(hex(randomblob(16))), 'First seat', '#7a2b58', 1);

-- What belongs to a seat, a table a thing, each list in its order.
CREATE TABLE profiles_of_seats (
  seat_id TEXT NOT NULL REFERENCES seats (id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  name TEXT NOT NULL,
  course TEXT NOT NULL,
  PRIMARY KEY (seat_id, id)
) STRICT;
INSERT INTO profiles_of_seats SELECT (SELECT id FROM seats), id, place, name, course FROM profiles;
DROP TABLE profiles;
ALTER TABLE profiles_of_seats RENAME TO profiles;

CREATE TABLE nibs (
  seat_id TEXT NOT NULL REFERENCES seats (id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  -- JSON, as in the tables below
  content TEXT NOT NULL,
  PRIMARY KEY (seat_id, id)
) STRICT;
CREATE TABLE palettes (
  seat_id TEXT NOT NULL REFERENCES seats (id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  content TEXT NOT NULL,
  PRIMARY KEY (seat_id, id)
) STRICT;
CREATE TABLE deliveries (
  seat_id TEXT NOT NULL REFERENCES seats (id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  content TEXT NOT NULL,
  PRIMARY KEY (seat_id, id)
) STRICT;
CREATE TABLE own_keys (
  seat_id TEXT NOT NULL REFERENCES seats (id) ON DELETE CASCADE,
  id TEXT NOT NULL,
  place INTEGER NOT NULL,
  content TEXT NOT NULL,
  PRIMARY KEY (seat_id, id)
) STRICT;
-- Lists that a seat has made its own; others are as they ship.
CREATE TABLE own_lists (
  seat_id TEXT NOT NULL REFERENCES seats (id) ON DELETE CASCADE,
  list TEXT NOT NULL,
  PRIMARY KEY (seat_id, list)
) STRICT;
-- Last choices, field by field.
CREATE TABLE choices (
  seat_id TEXT NOT NULL REFERENCES seats (id) ON DELETE CASCADE,
  thing TEXT NOT NULL,
  field TEXT NOT NULL,
  value TEXT NOT NULL,
  PRIMARY KEY (seat_id, thing, field)
) STRICT;

-- A drawing that was handed out to seats, a copy each.
CREATE TABLE tasks (
  id TEXT PRIMARY KEY,
  name TEXT NOT NULL,
  made_at TEXT NOT NULL,
  -- what is handed to whoever comes later, too
  template_id TEXT REFERENCES drawings (id) ON DELETE SET NULL,
  -- whether the guide goes through the copies
  guided INTEGER NOT NULL
) STRICT;

-- Whose a drawing is, and the task that it is a copy for.
ALTER TABLE drawings ADD COLUMN seat_id TEXT REFERENCES seats (id) ON DELETE SET NULL;
ALTER TABLE drawings ADD COLUMN task_id TEXT REFERENCES tasks (id) ON DELETE SET NULL;
UPDATE drawings SET seat_id = (SELECT id FROM seats);
