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

build_server() { quietly "Building the server" dotnet build "$ROOT/${1:-LooseLantern.slnx}" -c $CONFIGURATION -p:RestoreLockedMode=true; }

build_web() {
  cd "$ROOT/web"
  local lock; lock=$(cksum package-lock.json)
  if [ "$(cat node_modules/.lantern-lock 2>/dev/null)" != "$lock" ]; then
    quietly "Installing the front end's packages" npm ci --no-audit --no-fund
    echo "$lock" > node_modules/.lantern-lock
  fi
  local stamp; stamp=$(find src static *.json *.ts *.js -type f -exec cksum {} + 2>/dev/null | sort | cksum)
  if [ ! -f build/index.html ] || [ "$(cat .svelte-kit/lantern-built 2>/dev/null)" != "$stamp" ]; then
    quietly "Building the front end" npm run build
    echo "$stamp" > .svelte-kit/lantern-built
  fi
  cd "$ROOT"
}
