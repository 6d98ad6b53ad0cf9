# ./lantern up: from a fresh machine to an address to open.

# await_http PORT PATH PROCESS WHAT SECONDS : waits until a process that was started answers.
await_http() {
  local tries=0
  until [ "$(http_status "$1" "$2")" = 200 ]; do
    kill -0 "$3" 2>/dev/null || fail "$4 stopped while starting; what was said stands above"
    tries=$((tries + 1)); [ $tries -lt $(($5 * 5)) ] || fail "$4 did not answer within $5 seconds"
    sleep 0.2
  done
}

# demo_from_template DATABASE CALENDARS DAY : copies the demo of a day. It is loaded once for a day and a build, and
# kept as a database, with what the stand-ins kept beside it, that no program is ever run on.
demo_from_template() {
  local build template kept
  build=$(cat "$SERVER" "$STANDINS" | cksum | cut -d' ' -f1)
  template="demo_$(printf '%s' "$3" | tr -d -)_$build"
  kept="$ROOT/.lantern/templates/$template"
  if [ -z "$(pg_run "SELECT 1 FROM pg_database WHERE datname = '$template'")" ] || [ ! -d "$kept" ]; then
    # Those of earlier builds are of no use any more.
    local old
    for old in $(pg_run "SELECT datname FROM pg_database WHERE datname LIKE 'demo\\_%'"); do
      [ "${old##*_}" = "$build" ] || { pg_run "DROP DATABASE IF EXISTS \"$old\" WITH (FORCE)"; rm -rf "$ROOT/.lantern/templates/$old" "$ROOT/.lantern/templates/$old.mail"; }
    done
    load_demo "$template" "$kept" "$3"
  fi

  say "Copying the demo ..."
  # The database comes last: once it is there, the demo is taken for whole.
  rm -rf "$2" "$2.mail"
  mkdir -p "$(dirname "$2")"
  cp -r "$kept" "$2"
  if [ -d "$kept.mail" ]; then cp -r "$kept.mail" "$2.mail"; fi
  pg_run "CREATE DATABASE \"$1\" TEMPLATE \"$template\""
}

# load_demo DATABASE FOLDER DAY : loads the demo as it is on the morning of a day, and stops again.
load_demo() {
  local standin_port mail_port standin ok=0
  say "Loading the demo, once for this day and build ..."
  rm -rf "$2" "$2.mail" "$2.unfinished"
  mkdir -p "$2.unfinished"
  pg_run "DROP DATABASE IF EXISTS \"$1\" WITH (FORCE)"
  pg_database "$1"
  standin_port=$(free_port 4800)
  mail_port=$(free_port 4825)
  (cd "$ROOT" && exec dotnet "$STANDINS" --urls "http://127.0.0.1:$standin_port" --Data "$2.unfinished" --Demo "$3" --Mail "$2.mail" --MailPort "$mail_port") &
  standin=$!
  trap 'kill '"$standin"' 2>/dev/null || true; [ "$PG_STARTED" = no ] || pg_stop "'"$(pg_home)"'"' EXIT
  await_http "$standin_port" / "$standin" "the stand-ins" 30
  local at=${at:-}
  (cd "$ROOT/src/LooseLantern.Server" && ConnectionStrings__Lantern="$(pg_connection "$1")" \
    dotnet "$SERVER" --Demo true --DemoOnly true --StandIns:Calendars "http://127.0.0.1:$standin_port" \
      --Outside:Inside "127.0.0.1:$standin_port" ${at:+--Clock:At "$at"}) || ok=$?
  kill "$standin"; wait "$standin" 2>/dev/null || true
  [ $ok -eq 0 ] || { pg_run "DROP DATABASE \"$1\" WITH (FORCE)"; fail "the demo could not be loaded; what was said stands above"; }
  mv "$2.unfinished" "$2"
  trap - EXIT
}

lantern_up() {
  local at="" port="" demo=true fresh=no large=false
  while [ $# -gt 0 ]; do
    case "$1" in
      --at) at=${2:-}; [ -n "$at" ] || fail "--at needs a time, such as 2026-12-07T08:00+01:00"; shift 2 ;;
      --port) port=${2:-}; [[ "$port" =~ ^[0-9]+$ ]] && [ "$port" -ge 1 ] && [ "$port" -le 65535 ] || fail "--port needs a number from 1 to 65535"; shift 2 ;;
      --no-demo) demo=false; shift ;;
      --fresh) fresh=yes; shift ;;
      --large) large=true; shift ;;
      --help|-h) help; exit 0 ;;
      *) fail "there is no \"$1\" for up; ./lantern help lists what there is" ;;
    esac
  done
  [ "$demo" = true ] || [ "$large" = false ] || fail "--large adds to the demo; leave out --no-demo, or --large"
  if [ -n "$at" ] && ! [[ "$at" =~ ^[0-9]{4}-[0-9]{2}-[0-9]{2}T[0-9]{2}:[0-9]{2}(:[0-9]{2})?(Z|[+-][0-9]{2}:[0-9]{2})$ ]]; then
    fail "--at \"$at\" is no date and time with an offset; write it as 2026-12-07T08:00+01:00"
  fi
  [ -z "$port" ] || ! port_taken "$port" || fail "port $port is in use; choose another with --port"

  # Starts of one checkout come one after the other: two that begin at once would build over each other and choose the
  # same ports.
  mkdir -p "$ROOT/.lantern"
  exec 9> "$ROOT/.lantern/starting.lock"
  flock -n 9 || { say "Another start is under way here; waiting for it ..."; flock 9; }
  need_toolchains
  need_packages postgresql="/usr/lib/postgresql/*/bin/initdb"
  build_server src/LooseLantern.Server/LooseLantern.Server.csproj
  if [ "$demo" = true ]; then build_server src/LooseLantern.StandIns/LooseLantern.StandIns.csproj "the stand-ins"; fi
  build_web

  local home database=lantern
  home=$(pg_home)
  pg_start "$home"
  # Another day, or a start without the demo, has its data apart.
  [ -z "$at" ] || database="lantern_at_$(printf '%s' "${at%%T*}" | tr -d -)"
  [ "$demo" = true ] || database="${database}_bare"
  [ "$large" = false ] || database="${database}_large"
  # The stand-in's calendars hold what was booked, so they begin anew with the data.
  local calendars="$ROOT/.lantern/calendars/$database"
  [ "$fresh" = no ] || rm -rf "$calendars" "$calendars.port" "$calendars.mail"
  [ "$fresh" = no ] || pg_run "DROP DATABASE IF EXISTS \"$database\" WITH (FORCE)"
  local day=${at%%T*}
  day=${day:-$(TZ=Europe/Copenhagen date +%F)}
  if [ "$demo" = true ] && [ -z "$(pg_run "SELECT 1 FROM pg_database WHERE datname = '$database'")" ]; then
    demo_from_template "$database" "$calendars" "$day"
  fi
  pg_database "$database"

  port=${port:-$(free_port 4700)}
  say "Starting ..."
  local settings=(--urls "http://127.0.0.1:$port" --webroot "$ROOT/web/build" --Demo "$demo" --LargeDemo "$large"
    --Erasures:File "$ROOT/.lantern/erasures") standin="" standin_port=""
  if [ "$demo" = true ]; then
    # Where it was before, if nothing else is there now; the demo's accounts follow it.
    mkdir -p "$calendars"
    standin_port=$(free_port "$(cat "$calendars.port" 2>/dev/null || echo 4800)")
    echo "$standin_port" > "$calendars.port"
    local mail_port answers_port
    mail_port=$(free_port 4825)
    answers_port=$(free_port 4850)
    (cd "$ROOT" && exec dotnet "$STANDINS" --urls "http://127.0.0.1:$standin_port" --Data "$calendars" --Demo "$day" --Mail "$calendars.mail" --MailPort "$mail_port" \
      --Answers "replies.loose-lantern.example=127.0.0.1:$answers_port") &
    standin=$!
    trap 'kill '"$standin"' 2>/dev/null || true; [ "$PG_STARTED" = no ] || pg_stop_unused "'"$home"'"' EXIT
    await_http "$standin_port" / "$standin" "the stand-ins" 30
    settings+=(--StandIns:Calendars "http://127.0.0.1:$standin_port" --Outside:Inside "127.0.0.1:$standin_port"
      --Post:Host 127.0.0.1 --Post:Port "$mail_port" --Post:Tls false --Post:RepliesPort "$answers_port"
      --Video:Address "http://127.0.0.1:$standin_port" --PublicAddress "http://127.0.0.1:$port")
  fi
  [ -z "$at" ] || settings+=("--Clock:At" "$at")
  (cd "$ROOT/src/LooseLantern.Server" && \
    ConnectionStrings__Lantern="$(pg_connection "$database")" exec dotnet "$SERVER" "${settings[@]}") &
  local server=$!
  trap 'kill '"$server $standin"' 2>/dev/null || true; wait '"$server $standin"' 2>/dev/null || true; [ "$PG_STARTED" = no ] || pg_stop_unused "'"$home"'"' EXIT
  trap 'exit 130' INT
  trap 'exit 143' TERM

  await_http "$port" /health/ready "$server" "the app" 300
  # Its ports are taken now. Unlocked, not closed: programs that were started have it open, too.
  flock -u 9

  echo
  echo "Loose Lantern is at http://127.0.0.1:$port"
  if [ "$demo" = true ]; then
    echo "Sign in as marit@brackwater.example with the password lantern-demo"
    echo "A guest's page: http://127.0.0.1:$port/brackwater/hull-survey"
    echo "The hosts' calendars, and everybody's mail, at the stand-ins: http://127.0.0.1:$standin_port"
  else
    echo "Nobody has a sign-in yet: open http://127.0.0.1:$port/start to make a workspace"
  fi
  echo "Ctrl-C stops it."
  wait "$server"
}
