# What the machine must have, and how it gets it.

say() { printf '%s\n' "$*" >&2; }
fail() { say "lantern: $*"; exit 1; }

# need_packages PACKAGE=PROBE... : installs the Debian packages whose probe (a command or a path pattern) is not there.
need_packages() {
  local missing=() pair package probe
  for pair in "$@"; do
    package=${pair%%=*} probe=${pair#*=}
    # shellcheck disable=SC2086
    if ! command -v "$probe" >/dev/null 2>&1 && ! ls $probe >/dev/null 2>&1; then missing+=("$package"); fi
  done
  [ ${#missing[@]} -eq 0 ] && return
  if [ "$(id -u)" -ne 0 ]; then
    say "Some packages are missing. Install them with this line, then start again:"
    say "  sudo apt-get update && sudo apt-get install -y ${missing[*]}"
    exit 1
  fi
  say "Installing ${missing[*]} ..."
  apt-get update -qq >&2 || fail "apt-get update failed"
  DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >&2 || fail "apt-get could not install ${missing[*]}"
}

need_toolchains() {
  command -v dotnet >/dev/null || fail "the .NET 10 SDK is not on the PATH"
  dotnet --list-sdks | grep -q '^10\.' || fail "the .NET 10 SDK is needed; dotnet --list-sdks shows none"
  command -v node >/dev/null && command -v npm >/dev/null || fail "Node.js 20 or newer with npm is not on the PATH"
  [ "$(node -p 'process.versions.node.split(".")[0]')" -ge 20 ] || fail "Node.js 20 or newer is needed; this is $(node --version)"
}

port_taken() { (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }

# free_port FIRST : the first port from FIRST on that nothing listens on.
free_port() {
  local port=$1
  while port_taken "$port"; do port=$((port + 1)); done
  echo "$port"
}

# http_status PORT PATH : the status a GET answers with, or nothing.
http_status() {
  local status=""
  { exec 3<>"/dev/tcp/127.0.0.1/$1" && printf 'GET %s HTTP/1.0\r\nHost: 127.0.0.1\r\n\r\n' "$2" >&3 && read -r _ status _ <&3; exec 3>&-; } 2>/dev/null || true
  echo "$status"
}
