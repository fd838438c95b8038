# What backing up and restoring share. Sourced, after machine.sh and database.sh.

# check_sounds FOLDER: compares each file with the checksum beside it; prints what differs
check_sounds() {
  find "$1" -name '*.sha256' -execdir sha256sum --quiet --check {} + 2>&1 | grep -v '^sha256sum: WARNING' >&2
  # every checksum was looked at, whatever grep has found
  [ "${PIPESTATUS[0]}" -eq 0 ]
}

# reach_database: sets what the clients below need, for the database that is set or for that of var/, which is started unless it runs
reach_database() {
  if [ -z "${MELLOW_DATABASE_URL:-}" ]; then
    local port; port=$(cat var/database/port 2>/dev/null || true)
    if [ -n "$port" ] && port_answers "$port"; then
      MELLOW_DATABASE_URL=jdbc:mariadb://127.0.0.1:$port/mellow MELLOW_DATABASE_USER=mellow MELLOW_DATABASE_PASSWORD=$(cat var/database/password)
    else
      start_database "$PWD/var/database"
    fi
  fi
  local place=${MELLOW_DATABASE_URL#jdbc:mariadb://}
  database_host=${place%%:*}
  place=${place#*:}
  database_port=${place%%/*}
  database_name=${place#*/}
  database_name=${database_name%%\?*}
}

# the password goes by a file that nobody else can read
as_client() {
  local program=$1; shift
  "$program" --defaults-extra-file=<(printf '[client]\nhost=%s\nport=%s\nuser=%s\npassword=%s\nprotocol=tcp\n' \
    "$database_host" "$database_port" "$MELLOW_DATABASE_USER" "$MELLOW_DATABASE_PASSWORD") "$@"
}

# one moment of the database, without holding anybody up; sessions are left behind
dump() {
  as_client mariadb-dump --single-transaction --quick --hex-blob --default-character-set=utf8mb4 \
    --ignore-table="$database_name.SPRING_SESSION" --ignore-table="$database_name.SPRING_SESSION_ATTRIBUTES" "$database_name"
  as_client mariadb-dump --no-data --default-character-set=utf8mb4 "$database_name" SPRING_SESSION SPRING_SESSION_ATTRIBUTES
}

# tables: how many the database has; it is made if it is not there
tables() {
  as_client mariadb -N -e "CREATE DATABASE IF NOT EXISTS \`$database_name\`; SELECT count(*) FROM information_schema.tables WHERE table_schema = '$database_name'"
}

load() {
  as_client mariadb --default-character-set=utf8mb4 "$database_name"
}
