# ./lantern test: every test, and one line that counts them.

lantern_test() {
  local only=all long=no
  while [ $# -gt 0 ]; do
    case "$1" in
      all|core|formats|server|browser|web) only=$1 ;;
      --long) long=yes ;;
      *) fail "there is no kind of test called \"$1\"; choose core, formats, server, browser or web, and --long to try all random inputs" ;;
    esac
    shift
  done
  export LANTERN_LONG=$long

  need_toolchains
  need_packages postgresql="/usr/lib/postgresql/*/bin/initdb" chromium=chromium chromium-driver=chromedriver radicale=radicale
  TEST_LOGS=$(mktemp -d /tmp/lantern-logs.XXXXXX)
  TEST_HOME=""
  trap 'kill $(jobs -p) 2>/dev/null || true; [ -z "$TEST_HOME" ] || { pg_stop "$TEST_HOME"; rm -rf "$TEST_HOME"; }; rm -rf "$TEST_LOGS"' EXIT

  # The front end is built and checked beside the server: each of them leaves a core idle half of the time.
  if [ "$only" = all ]; then
    front_end_lane & local front=$!
    build_server
    test_postgres
    dotnet_tests Core
    dotnet_tests Formats
    dotnet_tests Server 4
    # One that broke off has not said what it would have found.
    wait $front || tally 0 1
    check api "The front end's API is the server's" api_is_current
    dotnet_tests Browser 3
  elif [ "$only" = web ]; then
    build_server
    front_end_lane
    check api "The front end's API is the server's" api_is_current
  else
    build_server
    if [ "$only" = server ] || [ "$only" = browser ]; then build_web; fi
    test_postgres
    case $only in server) dotnet_tests Server 4 ;; browser) dotnet_tests Browser 3 ;; *) dotnet_tests "${only^}" ;; esac
  fi

  tell_result
}

# What the front end needs before a browser can open it, and all of its own tests. One that can't be built fails here.
front_end_lane() {
  if ! (build_web); then tally 0 1; return; fi
  check types "The front end's types are right" npm --prefix "$ROOT/web" run check
  vitest_tests
  check format "Everything is laid out by the formatters" formatted
}

formatted() { dotnet tool restore && formatters check; }

# bench_faults [--count N] [--seed N] : what FaultTests does in short, at length.
bench_faults() {
  local count=3000 seed=$RANDOM
  while [ $# -gt 0 ]; do
    case "$1" in
      --count) count=${2:-}; shift 2 ;;
      --seed) seed=${2:-}; shift 2 ;;
      *) fail "there is no \"$1\" for bench faults; choose --count or --seed" ;;
    esac
  done
  [[ "$count" =~ ^[0-9]+$ && "$seed" =~ ^[0-9]+$ ]] || fail "--count and --seed each need a number"
  need_packages postgresql="/usr/lib/postgresql/*/bin/initdb"
  build_server tests/Server.Tests/Server.Tests.csproj
  TEST_HOME=""
  trap '[ -z "$TEST_HOME" ] || { pg_stop "$TEST_HOME"; rm -rf "$TEST_HOME"; }' EXIT
  test_postgres
  LANTERN_FAULTS=$count LANTERN_FAULTS_SEED=$seed \
    dotnet "$ROOT/tests/Server.Tests/bin/$CONFIGURATION/net10.0/Server.Tests.dll" -class "Server.Tests.FaultTests"
}

lantern_shots() {
  need_toolchains
  need_packages postgresql="/usr/lib/postgresql/*/bin/initdb" chromium=chromium chromium-driver=chromedriver
  build_server
  build_web
  TEST_HOME=""
  trap '[ -z "$TEST_HOME" ] || { pg_stop "$TEST_HOME"; rm -rf "$TEST_HOME"; }' EXIT
  test_postgres
  LANTERN_SHOTS="$ROOT/docs/screenshots" dotnet "$ROOT/tests/Browser.Tests/bin/$CONFIGURATION/net10.0/Browser.Tests.dll" -class "Browser.Tests.MainViews"
}

# A cluster for the tests alone; fsync is off, since it lives no longer than they do.
test_postgres() {
  TEST_HOME=$(mktemp -d /tmp/lantern-test.XXXXXX)
  chmod 755 "$TEST_HOME"
  pg_start "$TEST_HOME" fsync=off synchronous_commit=off full_page_writes=off
  LANTERN_TEST_DATABASE=$(pg_connection)
  LANTERN_WEB="$ROOT/web/build"
  # Where what databases are copied from keeps its folders.
  LANTERN_TEST_HOME="$TEST_HOME"
  export LANTERN_TEST_DATABASE LANTERN_WEB LANTERN_TEST_HOME
}

# tally PASSED FAILED : counts tests; the front end's lane runs in a process of its own.
tally() { echo "${1:-0} ${2:-0}" >> "$TEST_LOGS/tally"; }

# The ten slowest, what did not pass, then the one line that counts all.
tell_result() {
  local passed failed
  if [ -s "$TEST_LOGS/slow" ]; then
    echo
    echo "The slowest:"
    # Not head: it would end the sorting with a broken pipe.
    sort -rn "$TEST_LOGS/slow" | awk 'NR <= 10' | while read -r milliseconds name; do
      printf '%7.1f s  %s\n' "$(awk "BEGIN { print $milliseconds / 1000 }")" "$name"
    done
  fi
  if [ -s "$TEST_LOGS/bad" ]; then
    echo
    echo "Not passed:"
    cat "$TEST_LOGS/bad"
  fi
  read -r passed failed < <(awk '{ p += $1; f += $2 } END { print p + 0, f + 0 }' "$TEST_LOGS/tally")
  echo
  echo "$passed passed, $failed failed"
  [ "$failed" -eq 0 ] && [ "$passed" -gt 0 ]
}

# check NAME LABEL COMMAND... : a check that counts as one test.
check() {
  local log="$TEST_LOGS/$1.log" label=$2 began=$SECONDS; shift 2
  if "$@" >"$log" 2>&1; then tally 1 0; say "$label: yes, in $((SECONDS - began)) s"; else cat "$log"; say "FAILED: $label"; tally 0 1; fi
}

vitest_tests() {
  local log="$TEST_LOGS/vitest" ok=0 began=$SECONDS
  (cd "$ROOT/web" && npx vitest run --reporter=json --outputFile="$log.json") >"$log.log" 2>&1 || ok=$?
  read_results vitest "$log" "$ok" "Front end tests" $((SECONDS - began))
}

api_is_current() {
  cd "$ROOT/web"
  npx openapi-typescript ../docs/api/openapi.json -o "$TEST_LOGS/schema.ts" && diff -u src/lib/api/schema.ts "$TEST_LOGS/schema.ts"
}

# dotnet_tests PROJECT [THREADS] : more threads than cores where tests wait much for others.
dotnet_tests() {
  local log="$TEST_LOGS/$1" ok=0 began=$SECONDS
  say "$1 tests ..."
  (cd "$ROOT" && dotnet "tests/$1.Tests/bin/$CONFIGURATION/net10.0/$1.Tests.dll" -noColor -maxThreads "${2:-2}" -ctrf "$log.json") >"$log.log" 2>&1 || ok=$?
  read_results ctrf "$log" "$ok" "$1 tests" $((SECONDS - began))
}

# read_results KIND LOG EXIT LABEL SECONDS : a skipped test counts as a failed one, and so does a run without results.
read_results() {
  local good=0 bad=1
  read -r good bad < <(node "$ROOT/scripts/results.mjs" "$1" "$2.json" "$TEST_LOGS/slow" "$TEST_LOGS/bad" 2>/dev/null || echo "0 1")
  [ "$3" -eq 0 ] || [ "$bad" -gt 0 ] || bad=1
  [ "$bad" -eq 0 ] || cat "$2.log"
  say "$4: $good of $((good + bad)) passed, in $5 s"
  tally "$good" "$bad"
}
