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

port_taken() { (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }

free_port() {
  local port
  while :; do
    port=$((20000 + RANDOM % 20000))
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

# Whether anything below the named places is newer than the stamp.
newer_than() {
  local stamp=$1
  shift
  [ ! -e "$stamp" ] && return 0
  [ -n "$(cd "$ROOT" && find "$@" \( -name bin -o -name obj -o -name node_modules -o -name wwwroot \) -prune -o -newer "$stamp" -print -quit)" ]
}

install_web() {
  newer_than "$STATE/npm.stamp" web/package-lock.json || return 0
  say "Fetching the front end's packages …"
  (cd "$ROOT/web" && npm ci --ignore-scripts --no-audit --no-fund --loglevel=error) >"$STATE/npm.log" 2>&1 ||
    fail "The front end's packages could not be fetched." "What npm said stands in .polycline/npm.log."
  touch "$STATE/npm.stamp"
}

# Builds the front end and publishes the application to .polycline/app, where anything has changed.
build_app() {
  mkdir -p "$STATE"
  newer_than "$STATE/app.stamp" src web Directory.Build.props Directory.Packages.props global.json || return 0
  local started="$STATE/app.started"
  touch "$started"
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
  newer_than "$STATE/compute.stamp" src/Polycline.Core src/Polycline.Compute Directory.Build.props Directory.Packages.props global.json || return 0
  need_program dotnet "The .NET SDK 10"
  touch "$STATE/compute.started"
  (cd "$ROOT" && dotnet publish src/Polycline.Compute -c Release -o "$STATE/compute.new") >"$STATE/compute.log" 2>&1 ||
    { grep -E "error" "$STATE/compute.log" | sort -u | head -20 >&2; fail "The computation does not build." "All that was said stands in .polycline/compute.log."; }
  rm -rf "$STATE/compute" && mv "$STATE/compute.new" "$STATE/compute"
  mv "$STATE/compute.started" "$STATE/compute.stamp"
}
