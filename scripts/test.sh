# ./lantern test: every test, and one line that counts them.

lantern_test() {
  local only=${1:-all}
  case "$only" in all|core|formats|server|browser|web) ;; *) fail "there is no kind of test called \"$only\"; choose core, formats, server, browser or web" ;; esac

  need_toolchains
  need_packages postgresql="/usr/lib/postgresql/*/bin/initdb" chromium=chromium chromium-driver=chromedriver radicale=radicale
  build_server
  build_web

  local passed=0 failed=0 log; log=$(mktemp)
  TEST_HOME=""
  trap '[ -z "$TEST_HOME" ] || { pg_stop "$TEST_HOME"; rm -rf "$TEST_HOME"; }; rm -f '"$log" EXIT

  if [ "$only" = all ] || [ "$only" = web ]; then web_tests "$log"; fi
  if [ "$only" != web ]; then
    test_postgres
    local projects=(Core Formats Server Browser) project
    [ "$only" = all ] || projects=("${only^}")
    for project in "${projects[@]}"; do dotnet_tests "$project" "$log"; done
  fi

  echo
  echo "$passed passed, $failed failed"
  [ "$failed" -eq 0 ] && [ "$passed" -gt 0 ]
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
  export LANTERN_TEST_DATABASE LANTERN_WEB
}

# count NUMBER_OF_PASSED NUMBER_OF_FAILED
count() { passed=$((passed + ${1:-0})); failed=$((failed + ${2:-0})); }

# check LABEL COMMAND... : a check that counts as one test.
check() {
  local label=$1; shift
  say "$label ..."
  if "$@" >"$log" 2>&1; then count 1 0; else cat "$log"; say "FAILED: $label"; count 0 1; fi
}

web_tests() {
  cd "$ROOT/web"
  check "The front end's types are right" npm run check
  check "The front end's API is the server's" api_is_current
  say "Front end tests ..."
  local ok=0
  npx vitest run --reporter=json --outputFile="$log.json" >"$log" 2>&1 || ok=$?
  local good bad
  good=$(node -p 'require(process.argv[1]).numPassedTests' "$log.json" 2>/dev/null || echo 0)
  bad=$(node -p 'const r = require(process.argv[1]); r.numTotalTests - r.numPassedTests + (r.success || r.numFailedTests ? 0 : 1)' "$log.json" 2>/dev/null || echo 1)
  rm -f "$log.json"
  [ "$bad" -eq 0 ] && [ "$ok" -eq 0 ] || cat "$log"
  count "$good" "$bad"
  cd "$ROOT"
}

api_is_current() {
  npx openapi-typescript ../docs/api/openapi.json -o "$log.ts" && diff -u src/lib/api/schema.ts "$log.ts"
  local same=$?
  rm -f "$log.ts"
  return $same
}

dotnet_tests() {
  say "$1 tests ..."
  local ok=0 good bad total began=$SECONDS
  (cd "$ROOT" && dotnet test --project "tests/$1.Tests/$1.Tests.csproj" -c $CONFIGURATION --no-build --no-progress --no-ansi) >"$log" 2>&1 || ok=$?
  total=$(sed -n 's/^ *total: *\([0-9]*\).*/\1/p' "$log" | tail -n 1)
  good=$(sed -n 's/^ *succeeded: *\([0-9]*\).*/\1/p' "$log" | tail -n 1)
  # A skipped test counts as a failed one, and so does a run that ended without its summary.
  bad=$((${total:-1} - ${good:-0}))
  [ $ok -eq 0 ] || [ $bad -gt 0 ] || bad=1
  [ $bad -eq 0 ] || cat "$log"
  say "    ${good:-0} of ${total:-?} passed, in $((SECONDS - began)) s"
  count "${good:-0}" "$bad"
}
