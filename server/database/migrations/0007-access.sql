-- How this Desk is entered from other machines; no row where nobody ever named a passphrase.
CREATE TABLE access (
  id INTEGER PRIMARY KEY CHECK (id = 1),
  -- scrypt of the passphrase
  salt BLOB NOT NULL,
  hash BLOB NOT NULL,
  -- by which sessions are signed
  secret BLOB NOT NULL,
  -- sessions of an earlier one are over
  generation INTEGER NOT NULL
) STRICT;
