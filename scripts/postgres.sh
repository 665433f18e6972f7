# A PostgreSQL cluster of Polycline's own: never run as root, on loopback only, at a port of its own.
# shellcheck shell=bash
# Before use: PGROOT (where it lives) and PGPORT.

find_postgres() { PGBIN=$(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -1); }

install_postgres() {
  find_postgres
  [ -x "${PGBIN:-}/postgres" ] && return
  # The package would start a cluster of its own that nobody asked for.
  if [ "$(id -u)" = 0 ] && [ ! -e /etc/postgresql-common/createcluster.conf ]; then
    mkdir -p /etc/postgresql-common
    printf 'create_main_cluster = false\n' >/etc/postgresql-common/createcluster.conf
  fi
  install "PostgreSQL" "${PGBIN:-/usr/lib/postgresql/none/bin}/postgres" postgresql
  find_postgres
  [ -x "$PGBIN/postgres" ] || fail "PostgreSQL was installed, but its server is not where Debian puts it."
}

# Runs a program as the user PostgreSQL may run as: oneself, or where one is root, the package's own user.
as_pg() {
  if [ "$(id -u)" = 0 ]; then
    setpriv --reuid=postgres --regid=postgres --clear-groups -- env -C "$PGROOT" HOME="$PGROOT" LC_ALL=C.UTF-8 "$@"
  else
    env -C "$PGROOT" LC_ALL=C.UTF-8 "$@"
  fi
}

# The user PostgreSQL runs as must be able to reach its folder; a checkout below a private home keeps it out.
reachable_root() {
  local wanted=$1
  mkdir -p "$wanted"
  [ "$(id -u)" = 0 ] || { printf '%s' "$wanted"; return; }
  chown postgres:postgres "$wanted" && chmod 700 "$wanted"
  if setpriv --reuid=postgres --regid=postgres --clear-groups -- test -w "$wanted" 2>/dev/null; then
    printf '%s' "$wanted"
    return
  fi
  local elsewhere
  elsewhere="/var/lib/polycline/$(printf '%s' "$ROOT" | sha256sum | cut -c1-12)"
  mkdir -p "$elsewhere" && chown postgres:postgres "$elsewhere" && chmod 700 "$elsewhere"
  printf '%s' "$elsewhere"
}

cluster_exists() { [ -n "${PGROOT:-}" ] && [ -f "$PGROOT/data/PG_VERSION" ]; }

cluster_create() {
  as_pg "$PGBIN/initdb" -D "$PGROOT/data" -U postgres -E UTF8 --locale=C.UTF-8 --data-checksums \
    --auth-local=trust --auth-host=scram-sha-256 >"$STATE/initdb.log" 2>&1 ||
    { rm -rf "$PGROOT/data"; fail "PostgreSQL could not make its files." "What it said stands in .polycline/initdb.log. Nothing was left behind."; }
}

cluster_running() { as_pg "$PGBIN/pg_ctl" -D "$PGROOT/data" status >/dev/null 2>&1; }

# cluster_start OPTIONS: OPTIONS are further settings of the server. It does not keep the lock of whoever starts it (9).
cluster_start() {
  cluster_running && return
  as_pg "$PGBIN/pg_ctl" -D "$PGROOT/data" -l "$PGROOT/server.log" -w -t 60 \
    -o "-p $PGPORT -c listen_addresses=127.0.0.1 -c unix_socket_directories=$PGROOT -c random_page_cost=1.1 ${1:-}" start >/dev/null 9>&- ||
    fail "PostgreSQL did not start." "What it said stands in $PGROOT/server.log."
}

cluster_stop() { if cluster_exists && cluster_running; then as_pg "$PGBIN/pg_ctl" -D "$PGROOT/data" -m "${1:-fast}" -w stop >/dev/null; fi; }

# SQL as the cluster's superuser, over the socket that only PostgreSQL's user can reach.
sql() { as_pg env PGOPTIONS="-c client_min_messages=warning" "$PGBIN/psql" -X -q -A -t -v ON_ERROR_STOP=1 -h "$PGROOT" -p "$PGPORT" -U postgres "$@"; }

# The two roles: one owns the schema, the other is the application and may not undo what is never undone.
ensure_roles() {
  local owner_password=$1 app_password=$2 owner_rights=${3:-}
  [ "$(sql -d postgres -c "SELECT count(*) FROM pg_roles WHERE rolname IN ('polycline_owner', 'polycline_app')")" = 2 ] && return
  sql -d postgres >/dev/null <<SQL
CREATE ROLE polycline_owner LOGIN PASSWORD '$owner_password' $owner_rights;
CREATE ROLE polycline_app LOGIN PASSWORD '$app_password';
SQL
}

database_exists() { [ "$(sql -d postgres -c "SELECT count(*) FROM pg_database WHERE datname = '$1'")" = 1 ]; }
