#!/usr/bin/env bash
# Walks the commands of ./polycline in a place of their own: a taken port, a start, a second start, backup, harm,
# verify, restore, reset, stop. Says the first thing that is not as it should be, and ends with 1.
set -euo pipefail
# Job control, so that what is started can be sent what Ctrl-C sends, to all of its group.
set -m
ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
APP=${POLYCLINE_STATE:-$ROOT/.polycline}
. "$ROOT/scripts/common.sh"
STATE=$(mktemp -d "${TMPDIR:-/tmp}/polycline-start.XXXXXX")
chmod 755 "$STATE"
export POLYCLINE_STATE=$STATE
unset POLYCLINE_DATABASE POLYCLINE_OWNER_DATABASE
POLYCLINE_PORT=$(free_port)
POLYCLINE_PG_PORT=$(free_port)
export POLYCLINE_PORT POLYCLINE_PG_PORT
# The application as it was just built; what is walked here is everything after that.
cp -r "$APP/app" "$STATE/app"
cp "$APP/app.stamp" "$APP/npm.stamp" "$STATE/"

finish() {
  "$ROOT/polycline" stop >/dev/null 2>&1 || true
  rm -rf "$STATE"
}
trap finish EXIT

wrong() {
  printf 'Wrong: %s\n' "$*"
  [ ! -f "$STATE/start.out" ] || cat "$STATE/start.out"
  exit 1
}
polycline() { "$ROOT/polycline" "$@"; }
refused() {
  local words=$1
  shift
  local said
  if said=$("$@" 2>&1); then wrong "'$*' should have been refused: $said"; fi
  grep -q "$words" <<<"$said" || wrong "'$*' did not say '$words': $said"
}
# says WORDS COMMAND...: it succeeds, and says so.
says() {
  local words=$1 said
  shift
  said=$("$@" 2>&1) || wrong "'$*' failed: $said"
  grep -q "$words" <<<"$said" || wrong "'$*' did not say '$words': $said"
}
# It loads the demo school first, while tests may keep every core busy.
READY_WITHIN=240
is_ready() { grep -q "End it with Ctrl-C" "$STATE/start.out" 2>/dev/null; }
start() {
  local until=$((SECONDS + READY_WITHIN))
  # What an earlier start said is not read as this one's.
  : >"$STATE/start.out"
  # As from a terminal, whatever signals whoever runs this ignores.
  env --default-signal=INT "$ROOT/polycline" start "$@" >"$STATE/start.out" 2>&1 &
  STARTED=$!
  until is_ready; do
    kill -0 "$STARTED" 2>/dev/null || wrong "it did not start"
    [ "$SECONDS" -lt "$until" ] || wrong "it did not get ready in $READY_WITHIN s"
    sleep 0.1
  done
}

# A taken port is named, and nothing is left half done.
node -e "require('net').createServer().listen($POLYCLINE_PORT, '127.0.0.1')" &
TAKEN=$!
until port_taken "$POLYCLINE_PORT"; do sleep 0.1; done
refused "Port $POLYCLINE_PORT of 127.0.0.1 is taken" polycline start
kill "$TAKEN"
wait "$TAKEN" 2>/dev/null || true
[ ! -e "$STATE/start.pid" ] || wrong "a refused start left its mark"
[ ! -e "$STATE/postgres/data" ] || wrong "a refused start made a cluster"

start
grep -q "http://127.0.0.1:$POLYCLINE_PORT" "$STATE/start.out" || wrong "it did not print its address"
grep -q "orla.tierney-vance@fenwater.example" "$STATE/start.out" || wrong "it did not print the demo sign-ins"
[ "$(http_status "$POLYCLINE_PORT" /health/ready)" = 200 ] || wrong "it is not ready"
if [ "$(id -u)" = 0 ]; then
  [ "$(stat -c %U "$STATE/postgres/data/postmaster.pid")" != root ] || wrong "PostgreSQL runs as root"
fi
refused "is running already" polycline start
refused "is running already" polycline reset-demo
refused "is running already" polycline restore "$ROOT/global.json"

says "Everything is in" polycline backup "$STATE/kept"
refused "is there already" polycline backup "$STATE/kept"
says "Everything is as it should be" polycline verify
says "has ended" polycline stop
wait "$STARTED" || wrong "it did not end cleanly"
if port_taken "$POLYCLINE_PORT" || port_taken "$POLYCLINE_PG_PORT"; then wrong "a port is still taken"; fi

# Stopped as by Ctrl-C, everything is there at the next start; so it is after a restore.
refused "no backup of Polycline" polycline restore "$ROOT/global.json"
says "as it was" polycline restore "$STATE/kept"
says "Everything is as it should be" polycline verify
# Somebody else has the database open: they are told and ended, and what is said is so. The safety copy stands.
start
psql_as_pg() { (. "$ROOT/scripts/postgres.sh"; find_postgres; PGROOT=$(reachable_root "$STATE/postgres"); as_pg "$PGBIN/psql" -h "$PGROOT" -p "$POLYCLINE_PG_PORT" -U postgres "$@"); }
psql_as_pg -d polycline -c 'SELECT pg_sleep(300)' >"$STATE/other.out" 2>&1 &
OTHER=$!
until psql_as_pg -d postgres -Atc "SELECT 1 FROM pg_stat_activity WHERE query LIKE '%pg_sleep%' AND datname = 'polycline'" | grep -q 1; do sleep 0.1; done
kill -KILL "$(cat "$STATE/app.pid")" "$STARTED"
wait "$STARTED" 2>/dev/null || true
says "as it was" polycline restore "$STATE/kept"
wait "$OTHER" && wrong "the other session was not ended"
grep -q "terminat" "$STATE/other.out" || wrong "the other session was not told: $(cat "$STATE/other.out")"
[ "$(psql_as_pg -d postgres -Atc "SELECT count(*) FROM pg_database WHERE datname IN ('polycline', 'polycline_before')")" = 2 ] || wrong "the safety copy is gone"
says "Everything is as it should be" polycline verify
polycline stop >/dev/null
start
kill -INT -- "-$STARTED"
wait "$STARTED" || wrong "Ctrl-C did not end it cleanly"
if port_taken "$POLYCLINE_PG_PORT"; then wrong "PostgreSQL was left behind"; fi
# Killed outright, it leaves what stop still finds.
start
kill -KILL "$STARTED"
wait "$STARTED" 2>/dev/null || true
says "has ended" polycline stop
if port_taken "$POLYCLINE_PORT" || port_taken "$POLYCLINE_PG_PORT"; then wrong "something was left behind"; fi
# Ended, but not noticed by its parent: stop does not wait for that.
rm -f "$STATE/start.out"
bash -c 'POLYCLINE_STATE="$1" "$2/polycline" start >"$1/start.out" 2>&1 & exec sleep 600' _ "$STATE" "$ROOT" &
PARENT=$!
GIVEN_UP=$((SECONDS + READY_WITHIN))
until is_ready; do
  [ "$SECONDS" -lt "$GIVEN_UP" ] || wrong "it did not get ready in $READY_WITHIN s"
  sleep 0.1
done
says "has ended" timeout 60 "$ROOT/polycline" stop
kill "$PARENT"
wait "$PARENT" 2>/dev/null || true
says "The demo school is loaded" polycline reset-demo
says "not running" polycline stop
refused "There is no command 'dance'" polycline dance
# A school of one's own stands beside the demo, begins by the address that is printed, and can be backed up.
refused "takes --empty" polycline start --full
start --empty
grep -q "http://127.0.0.1:$POLYCLINE_PORT/begin/" "$STATE/start.out" || wrong "it did not print where the school begins"
! grep -q "Sign in as" "$STATE/start.out" || wrong "it offers the demo's people"
says "Everything is as it should be" polycline verify
says "Everything is in" polycline backup "$STATE/own"
says "has ended" polycline stop
wait "$STARTED" || wrong "it did not end cleanly"
says "as it was" polycline restore "$STATE/own"
start
grep -q "orla.tierney-vance@fenwater.example" "$STATE/start.out" || wrong "the demo is gone"
says "has ended" polycline stop
wait "$STARTED" || wrong "it did not end cleanly"
