# A private PostgreSQL cluster on 127.0.0.1, or the server that DATABASE_URL names.

# Every command that uses the cluster holds a shared lock for as long as it runs; the last one out stops the server. A
# lock ends with the process that holds it, so a command that was killed leaves nothing behind.
USERS_LOCK=8
START_LOCK=7

postgres_bin() { ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -1; }

# PostgreSQL refuses to run as root: there its programs run as the postgres user. The locks are not handed on to them: the
# server would hold them for ever.
as_postgres() {
  if [ "$(id -u)" = 0 ]; then (cd / && runuser -u postgres -- "$@" 7>&- 8>&-); else "$@" 7>&- 8>&-; fi
}

# The postgres user must be able to reach the folder; a checkout under a closed home is not.
cluster_folder() {
  if [ "$(id -u)" != 0 ] || as_postgres test -x "$PWD"; then echo "$STATE/pg"; return; fi
  echo "/var/lib/postgresql/anvil-$(printf '%s' "$PWD" | sha256sum | cut -c1-10)"
}

make_cluster() {
  local password; password="$(python3 -c 'import secrets; print(secrets.token_hex(16))')"
  local file; file="$(mktemp)"
  printf '%s' "$password" >"$file"
  rm -rf "$CLUSTER"; mkdir -p "$CLUSTER"; chmod 700 "$CLUSTER"
  if [ "$(id -u)" = 0 ]; then chown postgres "$CLUSTER" "$file"; fi
  as_postgres "$BIN/initdb" -D "$CLUSTER" -U anvil --pwfile="$file" -A scram-sha-256 -E UTF8 --locale=C.UTF-8
  rm -f "$file"
  (umask 077; printf '%s' "$password" >"$STATE/pg.password")
}

start_cluster() {
  free_port 5417 >"$STATE/pg.port"
  as_postgres "$BIN/pg_ctl" -D "$CLUSTER" -l "$CLUSTER/server.log" -w -t 30 \
    -o "-p $(cat "$STATE/pg.port") -c listen_addresses=127.0.0.1 -c unix_socket_directories=''" start
}

make_database() {
  PGPASSWORD="$(cat "$STATE/pg.password")" "$BIN/psql" -h 127.0.0.1 -p "$(cat "$STATE/pg.port")" -U anvil -d postgres \
    -tAc "select 1 from pg_database where datname='anvil'" | grep -q 1 ||
    PGPASSWORD="$(cat "$STATE/pg.password")" "$BIN/createdb" -h 127.0.0.1 -p "$(cat "$STATE/pg.port")" -U anvil anvil
}

need_database() {
  if [ -n "${DATABASE_URL:-}" ]; then return; fi
  need_debian "[ -n \"\$(postgres_bin)\" ]" postgresql
  BIN="$(postgres_bin)"
  CLUSTER="$(cluster_folder)"
  exec 8>>"$STATE/pg.users.lock" 7>>"$STATE/pg.start.lock"
  flock --shared "$USERS_LOCK"
  flock "$START_LOCK" # two commands that begin at once make one cluster and start one server
  if ! as_postgres test -f "$CLUSTER/PG_VERSION" || [ ! -f "$STATE/pg.password" ]; then
    step "PostgreSQL cluster" make_cluster
    rm -f "$STATE/migrations.stamp"
  fi
  if ! as_postgres "$BIN/pg_ctl" -D "$CLUSTER" status >/dev/null 2>&1; then
    step "PostgreSQL" start_cluster
  fi
  make_database
  flock --unlock "$START_LOCK"
  export DATABASE_URL="postgresql://anvil:$(cat "$STATE/pg.password")@127.0.0.1:$(cat "$STATE/pg.port")/anvil"
}

# The server works under a role that owns nothing: the owner migrates, the role appends (scripts/grants.sql).
grant_to_app() {
  [ -f "$STATE/pg.app.password" ] || (umask 077; python3 -c 'import secrets; print(secrets.token_hex(16))' >"$STATE/pg.app.password")
  PGPASSWORD="$(cat "$STATE/pg.password")" "$BIN/psql" -h 127.0.0.1 -p "$(cat "$STATE/pg.port")" -U anvil -d anvil -q \
    -v ON_ERROR_STOP=1 -v app=anvil_app -v password="$(cat "$STATE/pg.app.password")" -f scripts/grants.sql
}

# As the role the application works under; a server of one's own that DATABASE_URL names is used as it is.
work_as_app() {
  if [ -z "${CLUSTER:-}" ]; then return; fi
  step "database role" grant_to_app
  export DATABASE_URL="postgresql://anvil_app:$(cat "$STATE/pg.app.password")@127.0.0.1:$(cat "$STATE/pg.port")/anvil"
}

database_fingerprint() { printf '%s' "${DATABASE_URL%@*}${DATABASE_URL##*/}" | sha256sum | cut -c1-8; }

# Stops the server unless another command still uses it.
stop_database() {
  if [ -z "${CLUSTER:-}" ] || ! flock --exclusive --nonblock "$USERS_LOCK"; then return; fi
  as_postgres "$BIN/pg_ctl" -D "$CLUSTER" -m fast -w stop >/dev/null 2>&1 || true
  flock --unlock "$USERS_LOCK" # a child that outlives this command would keep the next one waiting
}
