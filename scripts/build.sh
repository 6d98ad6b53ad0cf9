# Builds the server, the front end's types from its OpenAPI document, and the front end.

CONFIGURATION=Release
SERVER="$ROOT/src/LooseLantern.Server/bin/$CONFIGURATION/net10.0/LooseLantern.Server.dll"

# quietly LABEL COMMAND... : runs a step, and shows what it printed only when it fails.
quietly() {
  local label=$1 log; shift
  log=$(mktemp)
  say "$label ..."
  if ! "$@" >"$log" 2>&1; then cat "$log" >&2; rm -f "$log"; fail "$label failed"; fi
  rm -f "$log"
}

STANDINS="$ROOT/src/LooseLantern.StandIns/bin/$CONFIGURATION/net10.0/LooseLantern.StandIns.dll"

# build_server [PROJECT] [WHAT] : one compiler serves all projects, and is not left running.
build_server() {
  quietly "Building ${2:-the server}" dotnet build "$ROOT/${1:-LooseLantern.slnx}" -c $CONFIGURATION -p:RestoreLockedMode=true -p:UseSharedCompilation=true
  dotnet build-server shutdown --vbcscompiler >/dev/null 2>&1 || true
}

# ./lantern case: built first where it is missing or older than its sources, so that it starts at once otherwise.
lantern_case() {
  local program="$ROOT/src/LooseLantern.Case/bin/$CONFIGURATION/net10.0/LooseLantern.Case.dll"
  if [ ! -f "$program" ] || [ -n "$(find "$ROOT"/src/LooseLantern.{Core,Formats,Case} -name '*.cs' -not -path '*/obj/*' -newer "$program" -print -quit)" ]; then
    need_toolchains
    build_server src/LooseLantern.Case/LooseLantern.Case.csproj
    touch "$program"
  fi
  exec dotnet "$program" "$@"
}

# ./lantern bench: ratios on this machine, never a test.
lantern_bench() {
  case "${1:-core}" in core|growth|cover|sql|requests|calendars|sign-in|mutants|faults) ;; *) fail "there is no bench called \"$1\"; choose core, growth, cover, sql, requests, calendars, sign-in, mutants or faults" ;; esac
  need_toolchains
  case "${1:-core}" in
    faults) shift; bench_faults "$@"; return ;;
    sql) bench_requests sql; return ;;
    requests) shift; bench_requests "$@"; return ;;
    mutants|sign-in) local script=$1; shift; cd "$ROOT"; exec node "bench/$script/$script.mjs" "$@" ;;
  esac
  build_server bench/LooseLantern.Bench/LooseLantern.Bench.csproj
  exec dotnet "$ROOT/bench/LooseLantern.Bench/bin/$CONFIGURATION/net10.0/LooseLantern.Bench.dll" "$@"
}

# bench_requests [openings|bookings|crowd|work|phone] : the server as a process, beside what the machine can do in the
# same run.
bench_requests() {
  need_packages postgresql="/usr/lib/postgresql/*/bin/pgbench" chromium=chromium chromium-driver=chromedriver
  build_server bench/LooseLantern.Bench.Requests/LooseLantern.Bench.Requests.csproj
  build_web
  export LANTERN_WEB="$ROOT/web/build"
  exec dotnet "$ROOT/bench/LooseLantern.Bench.Requests/bin/$CONFIGURATION/net10.0/LooseLantern.Bench.Requests.dll" "$@"
}

# web_packages : the front end's packages, as its lock file has them.
web_packages() {
  cd "$ROOT/web"
  local lock; lock=$(cksum package-lock.json)
  if [ "$(cat node_modules/.lantern-lock 2>/dev/null)" != "$lock" ]; then
    quietly "Installing the front end's packages" npm ci --no-audit --no-fund
    echo "$lock" > node_modules/.lantern-lock
  fi
  cd "$ROOT"
}

build_web() {
  web_packages
  cd "$ROOT/web"
  local stamp; stamp=$(find src static ../words *.json *.ts *.js -type f -exec cksum {} + 2>/dev/null | sort | cksum)
  if [ ! -f build/index.html ] || [ "$(cat .svelte-kit/lantern-built 2>/dev/null)" != "$stamp" ]; then
    quietly "Building the front end" npm run build
    echo "$stamp" > .svelte-kit/lantern-built
  fi
  cd "$ROOT"
}
