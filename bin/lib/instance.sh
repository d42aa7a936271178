# One instance of Nine Tally: a PostgreSQL cluster, a web server and workers of its own, all below $home and on loopback.
# Sourced after common.sh with $home, $web_port and $database_port set.

pg_bin=$(ls -d /usr/lib/postgresql/15/bin 2>/dev/null || dirname "$(command -v pg_ctl 2>/dev/null || echo /usr/bin/pg_ctl)")

# As root, PostgreSQL runs as postgres and everything that serves as www-data; otherwise all as oneself.
database_account() { is_root && echo postgres || id -un; }
serving_account() { is_root && echo www-data || id -un; }
as_database() { if is_root; then setpriv --reuid=postgres --regid=postgres --init-groups env -i PATH="$pg_bin:/usr/bin:/bin" HOME="$home/pg" LANG=C.UTF-8 "$@"; else env PATH="$pg_bin:$PATH" LANG=C.UTF-8 "$@"; fi; }
as_serving() { if is_root; then setpriv --reuid=www-data --regid=www-data --init-groups env -i PATH="$PATH" HOME="$home/app/storage" LANG=C.UTF-8 NINE_TALLY_HOME="$home" "$@"; else env NINE_TALLY_HOME="$home" "$@"; fi; }
as_owner() { (cat "$home/owner"; echo) | as_serving bash -c 'read -r DB_OWNER_PASSWORD; export DB_OWNER_PASSWORD; exec "$@"' as_owner "$@"; }
artisan() { as_serving php $jit "$root/artisan" "$@"; }

port_is_free() { ! (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }

must_be_enterable() {
  is_root || return 0
  local account
  for account in postgres www-data; do
    setpriv --reuid="$account" --regid="$account" --init-groups test -x "$root" -a -r "$root/artisan" 2>/dev/null || die "The account $account, which serves Nine Tally, cannot enter $root (a folder above it is closed to others). Clone it to a place that every account can enter, such as /srv/nine-tally, or open the way with: chmod a+x on each folder above."
  done
}

secret() { head -c 24 /dev/urandom | od -An -tx1 | tr -d ' \n'; }

storage_folders='blobs chunks work sources logs framework/cache framework/sessions framework/views'

make_home() {
  mkdir -p "$home/app" "$home/run" "$home/pg"
  local folder
  # Chunks of uploads had another name once.
  [ ! -d "$home/app/storage/pieces" ] || mv "$home/app/storage/pieces" "$home/app/storage/chunks"
  for folder in $storage_folders; do mkdir -p "$home/app/storage/$folder"; done
  if [ ! -f "$home/app/.env" ]; then
    (umask 077; cat > "$home/app/.env" <<ENV
APP_KEY=base64:$(head -c 32 /dev/urandom | base64)
DB_PASSWORD=$(secret)
DB_DATABASE=nine_tally
${environment:-}
ENV
    )
  fi
  # What serves never learns the password of the role that owns the tables: it is handed over on standard input when needed.
  [ -f "$home/owner" ] || (umask 077; secret > "$home/owner")
  sed -i '/^DB_PORT=/d; /^APP_URL=/d; /^NINE_TALLY_WORKERS=/d' "$home/app/.env"
  printf 'DB_PORT=%s\nAPP_URL=http://127.0.0.1:%s\nNINE_TALLY_WORKERS=%s\n' "$database_port" "$web_port" "${workers:-1}" >> "$home/app/.env"
  chmod 0700 "$home/app" "$home/app/storage" "$home/pg"
  chmod 0755 "$home" "$home/run"
  if is_root; then chown -R www-data: "$home/app" "$home/run"; chown postgres: "$home/pg"; chown -R www-data: "$root/bootstrap/cache"; fi
}

setting() { sed -n "s/^$1=//p" "$home/app/.env"; }

# Passwords are read by psql from a file that only this account can read: a command line can be read by all.
as_superuser() { # database, psql's arguments…
  local database="$1"; shift
  (umask 077; printf '127.0.0.1:%s:*:tally_superuser:%s\n' "$database_port" "$(cat "$home/pg/superuser")" > "$home/pg/words")
  PGPASSFILE="$home/pg/words" psql -X -q -v ON_ERROR_STOP=1 "host=127.0.0.1 port=$database_port dbname=$database user=tally_superuser" "$@"
}

start_database() {
  local data="$home/pg/data" tries=0
  if [ ! -f "$data/PG_VERSION" ]; then
    say 'Making the database'
    local words; words=$(mktemp); secret > "$words"; cp "$words" "$home/pg/superuser"; is_root && chown postgres: "$words" "$home/pg/superuser"; chmod 0600 "$home/pg/superuser"
    as_database initdb -D "$data" -U tally_superuser --pwfile="$words" -A scram-sha-256 -E UTF8 --locale=C.UTF-8 >"$home/run/initdb.log" 2>&1 \
      || { tail -n 5 "$home/run/initdb.log" >&2; rm -f "$words"; die 'The database could not be made; the answer stands above.'; }
    rm -f "$words"
    # No cell value may reach a log: messages without their details, statements without their parameters.
    printf '%s\n' "listen_addresses = '127.0.0.1'" "unix_socket_directories = ''" "log_error_verbosity = terse" "log_min_error_statement = panic" "log_parameter_max_length = 0" "log_parameter_max_length_on_error = 0" "shared_buffers = 256MB" "work_mem = 32MB" "maintenance_work_mem = 128MB" "max_wal_size = 2GB" "max_connections = 60" | as_database tee -a "$data/postgresql.conf" >/dev/null
  fi
  port_is_free "$database_port" || die "Port $database_port is in use, and the database needs it. End what uses it, or choose another with --database-port."
  # Compiling a query costs more than the pages and counts that it would be for. A statement ends when whoever asked for it is gone.
  supervise database "$(database_account)" INT "$pg_bin/postgres -D '$data' -p $database_port -c jit=off -c client_connection_check_interval=1000 ${database_options:-}"
  until "$pg_bin/pg_isready" -q -h 127.0.0.1 -p "$database_port"; do
    tries=$((tries + 1)); [ "$tries" -lt 300 ] || { tail -n 5 "$home/run/database.log" >&2; die 'The database did not start; the end of its log stands above.'; }
    sleep 0.1
  done
  if [ -z "$(as_superuser postgres -Atc "SELECT 1 FROM pg_database WHERE datname = 'nine_tally'")" ]; then
    as_superuser postgres >/dev/null <<SQL || die 'The roles of the database could not be made.'
CREATE ROLE tally_owner LOGIN PASSWORD '$(cat "$home/owner")';
CREATE ROLE tally_app LOGIN PASSWORD '$(setting DB_PASSWORD)';
CREATE DATABASE nine_tally OWNER tally_owner;
SQL
    as_superuser nine_tally -c 'ALTER SCHEMA public OWNER TO tally_owner' -c 'REVOKE ALL ON SCHEMA public FROM PUBLIC' -c 'GRANT USAGE ON SCHEMA public TO tally_app' >/dev/null
  fi
}

# A small second database as the old system that deliveries are asked of; its reader may do nothing but read.
make_old_system() {
  # One that an earlier version made lacks what is drawn from it now.
  if [ -z "$(as_superuser wherrymoor_old -Atc "SELECT to_regclass('licence_book')" 2>/dev/null)" ]; then
    [ -f "$home/reader" ] || (umask 077; secret > "$home/reader")
    printf '%s\n' 'SET client_min_messages = warning;' 'DROP DATABASE IF EXISTS wherrymoor_old WITH (FORCE);' 'DROP ROLE IF EXISTS wherrymoor_reader;' "CREATE ROLE wherrymoor_reader LOGIN PASSWORD '$(cat "$home/reader")';" 'CREATE DATABASE wherrymoor_old;' | as_superuser postgres >/dev/null &&
      as_superuser wherrymoor_old -f "$root/database/demo/old-system.sql" >/dev/null && php "$root/bin/demo-feed" --book | as_superuser wherrymoor_old >/dev/null &&
      as_superuser wherrymoor_old -c 'GRANT SELECT ON ALL TABLES IN SCHEMA public TO wherrymoor_reader' -c 'REVOKE ALL ON DATABASE wherrymoor_old FROM PUBLIC' -c 'GRANT CONNECT ON DATABASE wherrymoor_old TO wherrymoor_reader' >/dev/null \
      || die 'The database of the old system could not be made.'
  fi
  sed -i '/^NINE_TALLY_SOURCES=/d' "$home/app/.env"
  printf "NINE_TALLY_SOURCES='{\"Old system\": {\"host\": \"127.0.0.1\", \"port\": %s, \"database\": \"wherrymoor_old\", \"user\": \"wherrymoor_reader\", \"migration\": \"Wherrymoor cutover\", \"password\": \"%s\"}}'\n" "$database_port" "$(cat "$home/reader")" >> "$home/app/.env"
}

# A stand-in for the service that vouches for the time of seals.
start_time_stamps() { # port
  supervise time-stamps "$(serving_account)" TERM "$root/bin/time-stamps '$home/run/time-stamps' $1"
  sed -i '/^NINE_TALLY_TIME_STAMP/d' "$home/app/.env"
  printf 'NINE_TALLY_TIME_STAMPS=http://127.0.0.1:%s\nNINE_TALLY_TIME_STAMP_AUTHORITY=%s\n' "$1" "$home/run/time-stamps/authority.pem" >> "$home/app/.env"
}

# A stand-in for a system that is asked by the web.
start_demo_feed() { # port
  supervise demo-feed "$(serving_account)" TERM "php '$root/bin/demo-feed' '$home/run/demo-feed' $1"
  sed -i '/^NINE_TALLY_DEMO_FEED/d' "$home/app/.env"
  printf 'NINE_TALLY_DEMO_FEED=http://127.0.0.1:%s\n' "$1" >> "$home/app/.env"
}

# Tests that run side by side have a database and a storage each; the database is a copy of the one that was migrated.
make_home_of_process() { # number
  local own="$home/$1" folder
  for folder in $storage_folders; do mkdir -p "$own/app/storage/$folder"; done
  mkdir -p "$own/run"
  (umask 077; sed "s/^DB_DATABASE=.*/DB_DATABASE=nine_tally_$1/" "$home/app/.env" > "$own/app/.env")
  as_superuser postgres -c "CREATE DATABASE nine_tally_$1 TEMPLATE nine_tally OWNER tally_owner" >/dev/null || die 'The databases of the tests could not be made.'
  if is_root; then chown -R www-data: "$own"; fi
}

migrate() {
  local answer
  answer=$(as_owner php "$root/artisan" migrate --database=owner --force --no-interaction 2>&1) || { say "$answer" >&2; die 'The tables could not be defined; the answer stands above.'; }
}

# nginx and php-fpm in the foreground, from configuration of our own; both are ended by the process that started them.
write_server_configuration() {
  local run="$home/run" user=''
  is_root && user='user www-data;'
  cat > "$run/nginx.conf" <<NGINX
$user
worker_processes 2;
daemon off;
pid $run/nginx.pid;
error_log $run/nginx-error.log crit;
events { worker_connections 512; }
http {
  include /etc/nginx/mime.types;
  types { font/woff2 woff2; }
  # Addresses carry filters, and filters carry cell values: the path without its query.
  # And an invitation is told by its address alone.
  map \$uri \$address { ~^(?<before>/(api/v1/)?invitations?/) "\${before}…"; default \$uri; }
  log_format short '\$time_iso8601 \$request_method \$address \$status \$request_time';
  access_log $run/access.log short;
  client_body_temp_path $run/body; proxy_temp_path $run/proxy; fastcgi_temp_path $run/fastcgi; uwsgi_temp_path $run/uwsgi; scgi_temp_path $run/scgi;
  client_max_body_size 6m;
  gzip on; gzip_types text/css application/javascript application/json image/svg+xml;
  server_tokens off;
  server {
    listen 127.0.0.1:$web_port;
    root $root/public;
    location /build/ { add_header Cache-Control 'public, max-age=31536000, immutable'; add_header X-Content-Type-Options nosniff; try_files \$uri =404; }
    location ~ ^/(mark\.svg|robots\.txt)\$ { try_files \$uri =404; }
    location / { fastcgi_pass unix:$socket_folder/fpm; include /etc/nginx/fastcgi_params; fastcgi_param SCRIPT_FILENAME $root/public/index.php; fastcgi_param SCRIPT_NAME /index.php; fastcgi_param HTTP_HOST \$http_host; fastcgi_read_timeout 3600; fastcgi_buffers 64 16k; }
  }
}
NGINX
  cat > "$run/fpm.conf" <<FPM
[global]
error_log = $run/fpm.log
daemonize = no
[www]
$(is_root && printf 'user = www-data\ngroup = www-data\nlisten.owner = www-data\nlisten.mode = 0600')
listen = $socket_folder/fpm
pm = static
pm.max_children = 6
env[NINE_TALLY_HOME] = $home
env[APP_ROUTES_CACHE] = $home/app/storage/framework/cache/routes.php
env[PATH] = $PATH
php_admin_value[memory_limit] = 256M
php_admin_value[post_max_size] = 6M
php_admin_value[display_errors] = 0
php_admin_value[error_log] = $run/php.log
php_admin_value[opcache.validate_timestamps] = 1
php_admin_value[opcache.revalidate_freq] = 1
FPM
}

start_serving() {
  write_server_configuration
  # Addresses are put together once for each start: it takes a fifth of a short answer.
  as_serving env APP_ROUTES_CACHE="$home/app/storage/framework/cache/routes.php" php "$root/artisan" route:cache --quiet || die 'The addresses could not be put together; the answer stands above.'
  port_is_free "$web_port" || die "Port $web_port is in use. End what uses it, or choose another with --port."
  local fpm tries=0; fpm=$(command -v php-fpm8.2 || command -v php-fpm) || die 'php-fpm is missing.'
  supervise fpm "$(id -un)" QUIT "$fpm -F -y '$home/run/fpm.conf'"
  supervise nginx "$(id -un)" QUIT "nginx -p '$home/run' -e '$home/run/nginx-error.log' -c '$home/run/nginx.conf'"
  until ! port_is_free "$web_port"; do
    tries=$((tries + 1)); [ "$tries" -lt 100 ] || { tail -n 5 "$home/run/fpm.log" "$home/run/nginx.log" "$home/run/nginx-error.log" >&2 2>/dev/null; die 'The web server did not start; the end of its logs stands above.'; }
    sleep 0.1
  done
}

# Beside the workers that are asked for, one does nothing but what is answered in seconds, and one what nobody waits for, when the
# processors have nothing else to do. Pages come before workers. A worker ends every hour, and another follows it.
start_workers() { # number
  local worker work="queue:work --sleep=0.25 --timeout=0 --max-time=3600 --memory=512"
  supervise quick "$(serving_account)" TERM "$php $work --queue=quick"
  for worker in $(seq "$1"); do supervise "worker-$worker" "$(serving_account)" TERM "nice -n 5 $php $work --queue=quick,default,run"; done
  supervise idle "$(serving_account)" TERM "nice -n 19 $php $work --queue=profile"
  supervise scheduler "$(serving_account)" TERM "$php schedule:work"
}
php="php $jit -d memory_limit=1G '$root/artisan'"

# Everything that serves is kept by Debian's supervisor: whatever ends is started again. It leads a session, and what it starts stays in
# it, so that all of it can be found and ended even when the supervisor itself is gone.
start_supervisor() {
  socket_folder=$(mktemp -d /tmp/nine-tally-XXXXXX)
  is_root && chown www-data: "$socket_folder"
  rm -rf "$home/run/programs"; mkdir -p "$home/run/programs"
  cat > "$home/run/supervisor.conf" <<SUPERVISOR
[supervisord]
nodaemon=true
logfile=$home/run/supervisor.log
logfile_maxbytes=1MB
logfile_backups=1
pidfile=$home/run/supervisor.pid
$(is_root && printf 'user=root')
[unix_http_server]
file=$socket_folder/supervisor
chmod=0700
[rpcinterface:supervisor]
supervisor.rpcinterface_factory = supervisor.rpcinterface:make_main_rpcinterface
[supervisorctl]
serverurl=unix://$socket_folder/supervisor
[include]
files=$home/run/programs/*.conf
SUPERVISOR
  run_supervisor
}

run_supervisor() {
  (cd "$home/run" && exec env -i PATH="$PATH" LANG=C.UTF-8 NINE_TALLY_HOME="$home" setsid supervisord -c "$home/run/supervisor.conf" >/dev/null 2>&1) & supervisor=$!
  echo "$supervisor" > "$home/run/session"
  local tries=0
  until [ -S "$socket_folder/supervisor" ] && supervisorctl -c "$home/run/supervisor.conf" pid >/dev/null 2>&1; do
    tries=$((tries + 1)); [ "$tries" -lt 100 ] || { tail -n 5 "$home/run/supervisor.log" >&2 2>/dev/null; die 'The supervisor did not start; the end of its log stands above.'; }
    sleep 0.1
  done
}

supervise() { # name, account, signal that ends it, command
  cat > "$home/run/programs/$1.conf" <<PROGRAM
[program:$1]
command=${4//%/%%}
$(is_root && printf 'user=%s' "$2")
environment=HOME="${home//%/%%}/app/storage"
autorestart=true
startsecs=0
stopsignal=$3
stopwaitsecs=20
killasgroup=true
redirect_stderr=true
stdout_logfile=${home//%/%%}/run/$1.log
stdout_logfile_maxbytes=5MB
stdout_logfile_backups=1
PROGRAM
  supervisorctl -c "$home/run/supervisor.conf" update >/dev/null 2>&1
}

# As long as this is wanted there is a supervisor, and it has no rival: what one that was killed left behind goes first.
keep_supervising() {
  while true; do
    wait "$supervisor"
    end_session
    run_supervisor
  done
}

# What belongs to this installation's session: by its number, and by where it was started, should the number be in use again.
processes_of_session() {
  local session stat process
  session=$(cat "$home/run/session" 2>/dev/null) || return 0
  for stat in /proc/[0-9]*/stat; do
    process=$(cut -d/ -f3 <<<"$stat")
    # shellcheck disable=SC2046
    set -- $(sed 's/.*) //' "$stat" 2>/dev/null)
    [ "${4:-}" = "$session" ] && [ "$(readlink "/proc/$process/cwd")" = "$home/run" ] && echo "$process"
  done
}

end_session() {
  local supervisor_process tries=0 left
  supervisor_process=$(cat "$home/run/session" 2>/dev/null) || return 0
  if processes_of_session | grep -qx "$supervisor_process"; then kill -TERM "$supervisor_process" 2>/dev/null; fi
  while kill -0 "$supervisor_process" 2>/dev/null && [ "$tries" -lt 400 ]; do sleep 0.1; tries=$((tries + 1)); done
  left=$(processes_of_session)
  [ -z "$left" ] || kill -KILL $left 2>/dev/null
  # The database is no part of the session: it takes the processors of a folder, and ends by its own rules.
  [ ! -f "$home/pg/data/postmaster.pid" ] || as_database pg_ctl -D "$home/pg/data" -m fast -w -t 30 stop >/dev/null 2>&1
  return 0
}

stop_everything() {
  end_session
  rm -f "$home/run/session"
  [ -n "${socket_folder:-}" ] && rm -rf "$socket_folder"
  return 0
}
