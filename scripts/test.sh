# ./polycline test: every check and test, on a PostgreSQL of its own that is thrown away after it.
# shellcheck shell=bash

. "$ROOT/scripts/schema.sh"
PASSED=0
FAILED=0

# check NAME COMMAND...: one check, passed or failed; what it says is shown where it fails.
check() {
  local name=$1 log started=$SECONDS result=0
  shift
  log="$STATE/test/$(printf '%s' "$name" | tr -c 'a-z0-9\n' '-').log"
  to_the_first_failure "$@" >"$log" 2>&1
  if [ "$result" = 0 ]; then
    PASSED=$((PASSED + 1))
    say "ok      $name, $((SECONDS - started)) s"
  else
    FAILED=$((FAILED + 1))
    say "FAILED  $name"
    grep -v '^\s*$' "$log" | tail -40 | sed 's/^/        /'
  fi
}

in_web() { (cd "$ROOT/web" && "$@"); }

# The front end's types are those of the application as it was just built.
types_are_fresh() {
  local fresh="$STATE/test/openapi.json"
  dotnet "$STATE/app/Polycline.Demo.dll" openapi 2>/dev/null >"$fresh"
  diff -u "$ROOT/web/src/foundation/api/openapi.json" "$fresh" || { say "The OpenAPI document is not fresh: run ./polycline types"; return 1; }
  in_web npx --no-install openapi-typescript "$fresh" -o "$STATE/test/schema.d.ts" >/dev/null
  diff -u "$ROOT/web/src/foundation/api/schema.d.ts" "$STATE/test/schema.d.ts" || { say "The front end's types are not fresh: run ./polycline types"; return 1; }
}

# What a browser must fetch before anything is drawn: at most 300 kB of script, gzipped.
script_is_small() {
  local total=0 file
  for file in $(grep -o 'assets/[A-Za-z0-9_.-]*\.js' "$ROOT/src/Polycline.Web/wwwroot/index.html" | sort -u); do
    total=$((total + $(gzip -c "$ROOT/src/Polycline.Web/wwwroot/$file" | wc -c)))
  done
  say "$((total / 1000)) kB of script"
  [ "$total" -gt 0 ] && [ "$total" -le 300000 ]
}

scripts_are_sound() { for file in "$ROOT/polycline" "$ROOT"/scripts/*.sh "$ROOT/.ci/run"; do bash -n "$file" || return 1; done; }

# dotnet_tests NAME: runs one test project and adds up what its report says.
dotnet_tests() {
  local name=$1 log="$STATE/test/$1.log" report="$STATE/test/$1.json" said="$STATE/test/$1.failures" passed failed
  local dll="$ROOT/tests/$name.Tests/bin/Release/net10.0/$name.Tests"
  local started=$SECONDS
  rm -f "$report"
  # Most code here runs a few times: profiling it to compile it better does not pay, and neither does collecting memory often.
  DOTNET_TieredPGO=0 DOTNET_GCgen0size=4000000 timeout 3000 "$dll" -noColor -maxThreads 4 -result-ctrf "$report" "${@:2}" >"$log" 2>&1 || true
  if ! node "$ROOT/scripts/report.mjs" "$report" >"$said" 2>>"$log"; then
    FAILED=$((FAILED + 1))
    say "FAILED  $name.Tests did not finish"
    tail -40 "$log" | sed 's/^/        /'
    return
  fi
  read -r passed failed <"$said"
  PASSED=$((PASSED + passed))
  FAILED=$((FAILED + failed))
  say "$([ "$failed" = 0 ] && printf 'ok    ' || printf 'FAILED')  $name.Tests: $passed passed, $failed failed, $((SECONDS - started)) s"
  [ "$failed" = 0 ] || tail -n +2 "$said" | sed 's/^/        /'
}

# A cluster that is thrown away. OPTIONS: how safely it writes; a test's need not survive anything, which makes it quick.
test_cluster() {
  local options=${1:--c fsync=off -c synchronous_commit=off -c full_page_writes=off}
  install_postgres
  PGROOT=$(mktemp -d "${TMPDIR:-/tmp}/polycline-test.XXXXXX")
  [ "$(id -u)" = 0 ] && chown postgres:postgres "$PGROOT"
  PGPORT=$(free_port)
  trap 'cluster_stop immediate; rm -rf "$PGROOT"' EXIT
  cluster_create
  cluster_start "$options -c max_connections=300"
  ensure_roles test-owner test-app CREATEDB
  # Dropping a database by force ends whatever the application still has open on it.
  sql -d postgres -c "GRANT pg_signal_backend TO polycline_owner" >/dev/null
  export POLYCLINE_TEST_SERVER="Host=127.0.0.1;Port=$PGPORT;Username=polycline_owner;Password=test-owner"
  export POLYCLINE_TEST_APP="Host=127.0.0.1;Port=$PGPORT;Username=polycline_app;Password=test-app"
  export POLYCLINE_TEST_ROOT="$ROOT"
  export POLYCLINE_TEST_PUBLISHED="$STATE/app"
}

# The formatter breaks code at 140 characters; texts it cannot break are broken by hand.
formatted_csharp() {
  (cd "$ROOT" && dotnet tool restore && dotnet csharpier check src tests bench) || return 1
  if (cd "$ROOT" && LC_ALL=C.UTF-8 grep -rnE '^.{141,}$' --include='*.cs' --exclude-dir=obj --exclude-dir=bin src tests bench); then
    say "A line is longer than 140 characters."
    return 1
  fi
}

# beside NAME FUNCTION: runs checks on the other core; collect NAME waits for them, shows what they said and counts them.
beside() {
  ( PASSED=0 FAILED=0; "$2"; printf '%s %s\n' "$PASSED" "$FAILED" >"$STATE/test/$1.counts" ) >"$STATE/test/$1.said" 2>&1 &
}
collect() {
  local passed=0 failed=1
  wait "$2" || true
  cat "$STATE/test/$1.said"
  read -r passed failed <"$STATE/test/$1.counts" || true
  PASSED=$((PASSED + passed)) FAILED=$((FAILED + failed))
}

# What needs neither the application nor a database.
front_end_checks() {
  check "front end: formatted as agreed" in_web npm run --silent check:format
  check "front end: lint" in_web npm run --silent check:lint
  check "front end: types" in_web npm run --silent check:types
  check "front end: unit tests" in_web npm run --silent check:unit
  check "scripts can be read" scripts_are_sound
}

start_checks() { check "starts, stops, keeps and gives back" "$ROOT/scripts/check-start.sh"; }

run_tests() {
  cd "$ROOT"
  need_toolchain
  mkdir -p "$STATE/test"
  install "Chromium" /usr/bin/chromium chromium
  install "ChromeDriver" /usr/bin/chromedriver chromium-driver
  install "A reader of calendars" /usr/lib/python3/dist-packages/icalendar/__init__.py python3-icalendar
  test_cluster
  install_web
  rm -f "$STATE"/test/*.counts
  local front_end start project
  # These wait for nothing else, so they run alongside from the start.
  beside front-end front_end_checks
  front_end=$!
  check "packages as locked" dotnet restore Polycline.slnx --locked-mode
  check "published as it is started" build_app
  check "builds without a warning" dotnet build Polycline.slnx -c Release --no-restore
  check "formatted as agreed, C#" formatted_csharp
  check "front end: at most 300 kB of script at first" script_is_small
  check "front end: types made from this application" types_are_fresh
  check "schema as committed" schema_is_committed
  beside start start_checks
  start=$!
  for project in ${*:-Core Formats Data Web Browser}; do dotnet_tests "$project"; done
  collect front-end "$front_end"
  collect start "$start"
  say ""
  say "$PASSED passed, $FAILED failed"
  [ "$FAILED" = 0 ]
}
