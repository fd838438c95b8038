# MariaDB on loopback with a data folder of its own, never the system's service. Sourced, after machine.sh.

database_pid=

# start_database FOLDER: makes the data on the first start, and sets MELLOW_DATABASE_URL, _USER and _PASSWORD.
# Further arguments go to the server.
start_database() {
  local folder=$1; shift
  mkdir -p "$folder"
  chmod 700 "$folder"
  # a socket's path must be short, wherever the project lies
  database_socket_folder=$(mktemp -d /tmp/mellow.XXXXXX)
  local socket=$database_socket_folder/m.sock me; me=$(id -un)
  if [ ! -d "$folder/data/mysql" ]; then
    rm -rf "$folder/data"
    mariadb-install-db --no-defaults --user="$me" --datadir="$folder/data" --skip-test-db \
      --auth-root-authentication-method=socket --auth-root-socket-user="$me" >"$folder/install.log" 2>&1 \
      || fail "The database could not be made; $folder/install.log says why."
    (umask 077; head -c 18 /dev/urandom | base64 | tr '+/' '__' >"$folder/password")
  fi
  MELLOW_DATABASE_PASSWORD=$(cat "$folder/password")
  MELLOW_DATABASE_USER=mellow

  local port
  for _ in 1 2 3 4 5 6 7 8 9 10; do
    port=$((20000 + RANDOM % 20000))
    port_answers $port || break
  done
  # in a session of its own, so that Ctrl-C reaches the application first
  setsid mariadbd --no-defaults --user="$me" --datadir="$folder/data" --bind-address=127.0.0.1 --port="$port" \
    --socket="$socket" --pid-file="$folder/mariadbd.pid" --log-error="$folder/error.log" \
    --character-set-server=utf8mb4 --collation-server=utf8mb4_uca1400_ai_ci --max-allowed-packet=64M "$@" \
    >/dev/null 2>&1 </dev/null &
  database_pid=$!
  echo "$port" >"$folder/port"
  database_answers() { mariadb-admin --no-defaults --socket="$socket" -u"$me" ping >/dev/null 2>&1; }
  database_ready_or_dead() { database_answers || ! kill -0 $database_pid 2>/dev/null; }
  wait_for 60 database_ready_or_dead && database_answers || fail "The database did not start; $folder/error.log says why."

  mariadb --no-defaults --socket="$socket" -u"$me" <<SQL
CREATE USER IF NOT EXISTS 'mellow'@'127.0.0.1' IDENTIFIED BY '$MELLOW_DATABASE_PASSWORD';
CREATE USER IF NOT EXISTS 'mellow'@'localhost' IDENTIFIED BY '$MELLOW_DATABASE_PASSWORD';
GRANT ALL ON \`mellow%\`.* TO 'mellow'@'127.0.0.1';
GRANT ALL ON \`mellow%\`.* TO 'mellow'@'localhost';
SQL
  MELLOW_DATABASE_SERVER="jdbc:mariadb://127.0.0.1:$port"
  MELLOW_DATABASE_URL="$MELLOW_DATABASE_SERVER/mellow?createDatabaseIfNotExist=true"
  export MELLOW_DATABASE_SERVER MELLOW_DATABASE_URL MELLOW_DATABASE_USER MELLOW_DATABASE_PASSWORD
}

stop_database() {
  if [ -n "$database_pid" ]; then
    kill "$database_pid" 2>/dev/null || true
    wait "$database_pid" 2>/dev/null || true
    database_pid=
    rm -rf "$database_socket_folder"
  fi
}
