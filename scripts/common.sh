# What every command of ./polycline shares: words, installing what is missing, building once.
# shellcheck shell=bash

# Everything that is made or kept stands here, and git ignores it.
STATE=${POLYCLINE_STATE:-$ROOT/.polycline}
say() { printf '%s\n' "$*"; }
fail() {
  printf '\n%s\n' "$1" >&2
  shift
  for line in "$@"; do printf '  %s\n' "$line" >&2; done
  exit 1
}

# to_the_first_failure COMMAND...: runs it in a shell of its own that ends where something fails, and sets 'result'. Beside
# '||' or 'if' a shell goes on after what fails inside a function, and calls it well done.
to_the_first_failure() {
  set +e
  ( set -e; "$@" )
  result=$?
  set -e
}

need_program() {
  command -v "$1" >/dev/null 2>&1 || fail "$2 is missing, and Polycline cannot install it." "Install $2 so that '$1' is found, then start again. Nothing was changed."
}

need_toolchain() {
  need_program dotnet "The .NET SDK 10"
  need_program node "Node.js 20 or newer"
  need_program npm "npm"
}

# install WHAT PROGRAM PACKAGE...: installs Debian packages where the file PROGRAM is not there yet.
install() {
  local what=$1 program=$2
  shift 2
  [ -e "$program" ] && return
  local as=()
  if [ "$(id -u)" != 0 ]; then
    if command -v sudo >/dev/null 2>&1 && sudo -n true 2>/dev/null; then as=(sudo -n); else
      fail "$what is missing, and you have no right to install it." "Ask whoever looks after this machine to run: apt-get install $*" "Then do this again. Nothing was changed."
    fi
  fi
  command -v apt-get >/dev/null 2>&1 || fail "$what is missing, and this is no Debian: there is no apt-get." "Install $what yourself, then do this again. Nothing was changed."
  say "Installing $what …"
  mkdir -p "$STATE"
  if ! { "${as[@]}" apt-get update -q && "${as[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y -q --no-install-recommends "$@"; } >"$STATE/install.log" 2>&1; then
    fail "$what could not be installed." "What apt-get said stands in .polycline/install.log. Nothing else was changed."
  fi
}

# Whether a process still runs; one that has ended and waits for its parent to notice does not.
alive() { kill -0 "$1" 2>/dev/null && [ "$(sed -n 's/^State:[[:space:]]*\(.\).*/\1/p' "/proc/$1/status" 2>/dev/null)" != Z ]; }

port_taken() { (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }

# Below the ports the system hands out by itself (32768 and above), so that nobody is given it meanwhile.
free_port() {
  local port
  while :; do
    port=$((20000 + RANDOM % 12000))
    port_taken "$port" || { printf '%s' "$port"; return; }
  done
}

# The answer's status to GET PATH, with neither curl nor wget.
http_status() {
  local line=""
  exec 4<>"/dev/tcp/127.0.0.1/$1" 2>/dev/null || return 1
  printf 'GET %s HTTP/1.1\r\nHost: 127.0.0.1\r\nConnection: close\r\n\r\n' "$2" >&4
  read -r -t 5 line <&4
  exec 4>&- 4<&-
  set -- $line
  printf '%s' "${2:-}"
}

# What the files below the named places hold, in one line; what building itself leaves there is left out.
contents_of() {
  (cd "$ROOT" && find "$@" \( -name bin -o -name obj -o -name node_modules -o -name wwwroot \) -prune -o -type f -print0 | LC_ALL=C sort -z | xargs -0 -r sha256sum) | sha256sum
}

# Whether anything below the named places differs from what the stamp was made of.
differs_from() {
  local stamp=$1
  shift
  [ ! -e "$stamp" ] || [ "$(cat "$stamp")" != "$(contents_of "$@")" ]
}

install_web() {
  [ -d "$ROOT/web/node_modules" ] && ! differs_from "$STATE/npm.stamp" web/package-lock.json && return 0
  say "Fetching the front end's packages …"
  (cd "$ROOT/web" && npm ci --ignore-scripts --no-audit --no-fund --loglevel=error) >"$STATE/npm.log" 2>&1 ||
    fail "The front end's packages could not be fetched." "What npm said stands in .polycline/npm.log."
  contents_of web/package-lock.json >"$STATE/npm.stamp"
}

# Builds the front end and publishes the application to .polycline/app, where anything has changed.
build_app() {
  mkdir -p "$STATE"
  differs_from "$STATE/app.stamp" src web Directory.Build.props Directory.Packages.props global.json || return 0
  local started="$STATE/app.started"
  contents_of src web Directory.Build.props Directory.Packages.props global.json >"$started"
  install_web
  say "Building the front end …"
  (cd "$ROOT/web" && npm run --silent build) >"$STATE/web-build.log" 2>&1 || { cat "$STATE/web-build.log" >&2; fail "The front end does not build."; }
  say "Building the application …"
  (cd "$ROOT" && dotnet restore Polycline.slnx --locked-mode && dotnet publish src/Polycline.Demo -c Release --no-restore -o "$STATE/app.new") >"$STATE/build.log" 2>&1 ||
    { grep -E "error" "$STATE/build.log" | sort -u | head -20 >&2; fail "The application does not build." "All that was said stands in .polycline/build.log."; }
  rm -rf "$STATE/app" && mv "$STATE/app.new" "$STATE/app"
  mv "$started" "$STATE/app.stamp"
}

# Publishes the computation alone to .polycline/compute, where anything of it has changed.
build_compute() {
  mkdir -p "$STATE"
  differs_from "$STATE/compute.stamp" src/Polycline.Core src/Polycline.Compute Directory.Build.props Directory.Packages.props global.json || return 0
  need_program dotnet "The .NET SDK 10"
  contents_of src/Polycline.Core src/Polycline.Compute Directory.Build.props Directory.Packages.props global.json >"$STATE/compute.started"
  (cd "$ROOT" && dotnet publish src/Polycline.Compute -c Release -o "$STATE/compute.new") >"$STATE/compute.log" 2>&1 ||
    { grep -E "error" "$STATE/compute.log" | sort -u | head -20 >&2; fail "The computation does not build." "All that was said stands in .polycline/compute.log."; }
  rm -rf "$STATE/compute" && mv "$STATE/compute.new" "$STATE/compute"
  mv "$STATE/compute.started" "$STATE/compute.stamp"
}
