-- Samples of pen traces, once each, by the sha-256 of their JSON; deflated.
CREATE TABLE traces (
  sha256 TEXT PRIMARY KEY,
  samples BLOB NOT NULL,
  created_at TEXT NOT NULL
) STRICT;

-- Documents and edits from before are rewritten by the step of the same number in migration-steps.ts.
