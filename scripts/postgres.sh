# A PostgreSQL cluster of our own, on loopback. As root it runs as the postgres user, who must be able to reach its
# folder.

pg_bin() { ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -n 1; }

as_postgres() {
  if [ "$(id -u)" -eq 0 ]; then (cd / && runuser -u postgres -- "$@"); else "$@"; fi
}

# pg_home : the folder of this checkout's cluster: in the checkout, or under /var/lib where the postgres user can't
# reach that.
pg_home() {
  local inside="$ROOT/.lantern"
  mkdir -p "$inside"
  if [ "$(id -u)" -ne 0 ] || as_postgres test -x "$inside"; then
    echo "$inside"
  else
    local name; name=$(printf '%s' "$ROOT" | tr -c 'A-Za-z0-9' '-')
    mkdir -p /var/lib/loose-lantern
    echo "/var/lib/loose-lantern/${name#-}-$(printf '%s' "$ROOT" | cksum | cut -d' ' -f1)"
  fi
}

# pg_start HOME [SETTING...] : starts the cluster, made first where there is none; sets PG_PORT, PG_PASSWORD and
# PG_STARTED.
pg_start() {
  local home=$1; shift
  local bin; bin=$(pg_bin)
  mkdir -p "$home"
  if [ ! -f "$home/postgres/PG_VERSION" ]; then
    rm -rf "$home/postgres"
    mkdir "$home/postgres"
    (umask 077; head -c 24 /dev/urandom | od -An -tx1 | tr -d ' \n' > "$home/password")
    if [ "$(id -u)" -eq 0 ]; then chown postgres "$home/postgres" "$home/password"; fi
    chmod 700 "$home/postgres"
    as_postgres "$bin/initdb" -D "$home/postgres" -U lantern --pwfile="$home/password" --auth=scram-sha-256 \
      --encoding=UTF8 --locale=C.UTF-8 >"$home/initdb.log" 2>&1 || { cat "$home/initdb.log" >&2; fail "PostgreSQL's cluster could not be made"; }
  fi
  PG_PASSWORD=$(cat "$home/password")
  if as_postgres "$bin/pg_ctl" -D "$home/postgres" status >/dev/null 2>&1; then
    PG_PORT=$(sed -n 4p "$home/postgres/postmaster.pid")
    PG_STARTED=no
    return
  fi
  PG_PORT=$(cat "$home/port" 2>/dev/null || echo 54700)
  PG_PORT=$(free_port "$PG_PORT")
  echo "$PG_PORT" > "$home/port"
  local options="-p $PG_PORT -c listen_addresses=127.0.0.1 -c unix_socket_directories='' -c max_connections=200" setting
  for setting in "$@"; do options+=" -c $setting"; done
  : > "$home/postgres.log"
  if [ "$(id -u)" -eq 0 ]; then chown postgres "$home/postgres.log"; fi
  # Its own session, so that Ctrl-C reaches the app first and PostgreSQL is stopped in order after it.
  as_postgres setsid "$bin/pg_ctl" -D "$home/postgres" -l "$home/postgres.log" -o "$options" -w -t 60 start >/dev/null \
    || { tail -n 20 "$home/postgres.log" >&2; fail "PostgreSQL did not start"; }
  PG_STARTED=yes
}

pg_stop() { as_postgres "$(pg_bin)/pg_ctl" -D "$1/postgres" -m fast -w stop >/dev/null 2>&1 || true; }

# pg_stop_unused HOME : stops the cluster, unless somebody else works on it: a second start, say.
pg_stop_unused() {
  local others
  others=$(pg_run "SELECT count(*) FROM pg_stat_activity WHERE backend_type = 'client backend' AND pid <> pg_backend_pid()") || others=0
  [ "$others" -gt 0 ] || pg_stop "$1"
}

pg_run() { PGOPTIONS='-c client_min_messages=warning' PGPASSWORD=$PG_PASSWORD "$(pg_bin)/psql" -h 127.0.0.1 -p "$PG_PORT" -U lantern -d postgres -qtAX -v ON_ERROR_STOP=1 -c "$1"; }

# pg_database NAME : makes the database if it is not there.
pg_database() { [ -n "$(pg_run "SELECT 1 FROM pg_database WHERE datname = '$1'")" ] || pg_run "CREATE DATABASE \"$1\""; }

pg_connection() { echo "Host=127.0.0.1;Port=$PG_PORT;Username=lantern;Password=$PG_PASSWORD${1:+;Database=$1}"; }
