# What the scripts share about the machine: plain endings and missing packages. Sourced, never run.

# servers live in folders that an ordinary user's shell does not look into
PATH=$PATH:/usr/sbin:/sbin

# Ends with one plain sentence.
fail() {
  echo "$*" >&2
  exit 1
}

as_root() {
  if [ "$(id -u)" = 0 ]; then "$@"; else sudo "$@"; fi
}

# need COMMAND PACKAGE...: installs Debian packages if a command is missing.
missing_packages=()
need() {
  command -v "$1" >/dev/null 2>&1 || missing_packages+=("${@:2}")
}

install_missing() {
  [ ${#missing_packages[@]} -eq 0 ] && return
  local list="${missing_packages[*]}"
  command -v apt-get >/dev/null || fail "Please install these first, this is not a Debian system: $list"
  if [ "$(id -u)" != 0 ]; then
    command -v sudo >/dev/null || fail "Please ask an administrator to install: $list"
    sudo -n true 2>/dev/null || [ -t 0 ] || fail "Please ask an administrator to install: $list"
  fi
  echo "Installing what is missing: $list"
  local log; log=$(mktemp)
  local apt=(env DEBIAN_FRONTEND=noninteractive apt-get -q -y -o DPkg::Lock::Timeout=300)
  as_root "${apt[@]}" update >"$log" 2>&1 || true
  as_root "${apt[@]}" install --no-install-recommends "${missing_packages[@]}" >>"$log" 2>&1 \
    || { tail -3 "$log" >&2; rm -f "$log"; fail "These packages could not be installed: $list"; }
  rm -f "$log"
}

# A JDK, not only a runtime, of version 17 or later.
need_jdk() {
  local version
  version=$({ javac -version 2>&1 || true; } | sed -nE 's/^javac ([0-9]+).*/\1/p')
  [ "${version:-0}" -ge 17 ] || missing_packages+=(openjdk-17-jdk-headless)
}

# free_space_mb FOLDER
free_space_mb() {
  df -Pm "$1" | awk 'NR == 2 { print $4 }'
}

port_answers() {
  (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null
}

# Waits until a command succeeds: wait_for SECONDS COMMAND...
wait_for() {
  local end=$((SECONDS + $1)); shift
  until "$@"; do
    [ $SECONDS -lt $end ] || return 1
    sleep 0.1
  done
}

# Whether a file is missing, or older than any file below the others: is_older_than_sources FILE SOURCE...
is_older_than_sources() {
  [ ! -f "$1" ] || [ -n "$(find "${@:2}" -path '*/node_modules' -prune -o -newer "$1" -type f -print -quit)" ]
}
