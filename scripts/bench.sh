# ./polycline bench: speed as ratios within one run.
# shellcheck shell=bash
. "$ROOT/scripts/test.sh"

run_bench() {
  cd "$ROOT"
  need_toolchain
  mkdir -p "$STATE/test"
  install "wrk" /usr/bin/wrk wrk
  install "Chromium" /usr/bin/chromium chromium
  install "ChromeDriver" /usr/bin/chromedriver chromium-driver
  # As durable as the application's own: what a request costs includes what it takes to keep it.
  test_cluster "-c synchronous_commit=on"
  build_app
  dotnet build bench/Bench.csproj -c Release >"$STATE/test/bench-build.log" 2>&1 || { cat "$STATE/test/bench-build.log"; fail "The benches do not build."; }
  dotnet bench/bin/Release/net10.0/Bench.dll "$@"
}
