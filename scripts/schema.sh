# The schema as the migrations make it, in a form that does not hang on the version of pg_dump.
# shellcheck shell=bash

# schema_now DATABASE: its tables, functions and rights, without what pg_dump says about itself.
schema_now() {
  as_pg "$PGBIN/pg_dump" -h "$PGROOT" -p "$PGPORT" -U postgres --schema-only --no-owner --exclude-table=migration --exclude-table='migration_*' "$1" |
    grep -vE '^(--|SET |SELECT pg_catalog|\\|$)|^(CREATE|COMMENT ON) EXTENSION'
}

# schema_is_committed: compares the schema of a fresh database with the committed one; with --write makes it so.
schema_is_committed() {
  local database=schema_$RANDOM app="$STATE/app/Polycline.Demo.dll"
  sql -d postgres -c "CREATE DATABASE $database OWNER polycline_owner" >/dev/null
  POLYCLINE_OWNER_DATABASE="$POLYCLINE_TEST_SERVER;Database=$database" dotnet "$app" migrate >/dev/null
  schema_now "$database" >"$STATE/test/schema.sql"
  sql -d postgres -c "DROP DATABASE $database WITH (FORCE)" >/dev/null
  [ "${1:-}" != --write ] || cp "$STATE/test/schema.sql" "$ROOT/src/Polycline.Data/schema.sql"
  diff -u "$ROOT/src/Polycline.Data/schema.sql" "$STATE/test/schema.sql" || { say "The schema is not as committed: run ./polycline schema"; return 1; }
}
