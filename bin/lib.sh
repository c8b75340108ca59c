# What bin/start and bin/test share: everything a fresh Debian 12 machine needs, done once and skipped when it is there.
# Sourced by bash with `set -euo pipefail`.

ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
VENV="$ROOT/.venv"
PY="$VENV/bin/python"
# where Debian keeps ldconfig and runuser, which plain users do not have on their path
PATH="$PATH:/usr/sbin:/sbin"
# what a process has compiled is kept for the next one: compiling everything at each start takes longer than starting
unset PYTHONDONTWRITEBYTECODE

say() { printf '%s\n' "$*" >&2; }

as_root() {
  if [ "$(id -u)" = 0 ]; then "$@"
  elif command -v sudo >/dev/null; then sudo "$@"
  else say "This step needs root: $*"; say "Run it as root, or install sudo."; exit 1
  fi
}

# PostgreSQL refuses to run as root; then its data belongs to the postgres user and lies where that user can reach it.
if [ "$(id -u)" = 0 ]; then
  DATA="${PLUMB_DATA:-/var/lib/vigilant-plumb/$(printf %s "$ROOT" | sha256sum | cut -c1-12)}"
else
  DATA="${PLUMB_DATA:-$ROOT/.data}"
fi
PG="$DATA/postgres"

as_postgres() {
  if [ "$(id -u)" = 0 ]; then (cd / && runuser -u postgres -- "$@"); else "$@"; fi
}

pg_bin() { find /usr/lib/postgresql -path '*/bin/initdb' 2>/dev/null | sort -V | tail -n 1 | xargs -r dirname; }

# set_up PACKAGES...: everything but the database; both commands may be started at once, one then waits for the other
set_up() {
  mkdir -p "$ROOT/.tools"
  exec 8>"$ROOT/.tools/.lock"; flock 8
  install_packages "$@"
  # beside each other: one waits for a registry while the other works
  install_python & local python=$!
  install_web
  # what needs npm packages alone begins before the others are there, and goes on after
  if declare -F with_npm >/dev/null; then with_npm & fi
  wait $python
  build_web
  flock -u 8; exec 8>&-
}

# --- Debian packages: name of a file or command that shows it is there, and the package that brings it
# (not grep -q: it would end the pipe early, and pipefail take that for a failure)
have_font() { fc-list 2>/dev/null | grep -i dejavu >/dev/null; }
have_library() { ldconfig -p | grep "$1" >/dev/null; }

install_packages() {
  local want=()
  command -v python3.11 >/dev/null || want+=(python3.11)
  python3.11 -c 'import venv, ensurepip' 2>/dev/null || want+=(python3.11-venv)
  [ -n "$(pg_bin)" ] || want+=(postgresql)
  have_library libpango-1.0 || want+=(libpango-1.0-0)
  have_library libpangoft2-1.0 || want+=(libpangoft2-1.0-0)
  have_library libharfbuzz-subset || want+=(libharfbuzz-subset0)
  command -v fc-list >/dev/null || want+=(fontconfig)
  have_font || want+=(fonts-dejavu-core)
  command -v npm >/dev/null || want+=(nodejs npm)
  # what CHOLMOD is built with and runs on (docs/performance.md)
  command -v gcc >/dev/null || want+=(gcc libc6-dev)
  python3.11 -c 'import sysconfig, sys; sys.exit(not __import__("os").path.exists(sysconfig.get_path("include") + "/Python.h"))' 2>/dev/null || want+=(python3.11-dev)
  [ -f /usr/include/suitesparse/cholmod.h ] || want+=(libsuitesparse-dev)
  have_library libopenblas || want+=(libopenblas0-pthread)
  command -v nginx >/dev/null || want+=(nginx-light)
  # text of scanned pages
  command -v tesseract >/dev/null || want+=(tesseract-ocr)
  for extra in "$@"; do command -v "${extra%%:*}" >/dev/null || want+=("${extra##*:}"); done
  [ ${#want[@]} = 0 ] && return
  say "Installing Debian packages: ${want[*]}"
  as_root apt-get update -qq
  # Debian would start nginx on port 80 and a PostgreSQL cluster of its own at once; nothing of that is needed
  local policy=/usr/sbin/policy-rc.d held=""
  if [ ! -e "$policy" ]; then held=1; printf '#!/bin/sh\nexit 101\n' | as_root tee "$policy" >/dev/null; as_root chmod 755 "$policy"; fi
  as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${want[@]}" >/dev/null || { [ -z "$held" ] || as_root rm -f "$policy"; return 1; }
  [ -z "$held" ] || as_root rm -f "$policy"
}

# done_once STAMP KEY COMMAND...: run the command unless the stamp already holds the key
done_once() {
  local stamp=$1 key=$2; shift 2
  [ -f "$stamp" ] && [ "$(cat "$stamp")" = "$key" ] && return
  "$@"
  printf %s "$key" > "$stamp"
}

sum_of() { cat "$@" | sha256sum | cut -d' ' -f1; }

install_python() {
  [ -x "$PY" ] || python3.11 -m venv "$VENV"
  done_once "$VENV/.installed" "$(sum_of "$ROOT"/requirements/*.txt "$ROOT/core/pyproject.toml") $ROOT" pip_install
}
pip_install() {
  say "Installing Python packages"
  "$PY" -m pip install -q --disable-pip-version-check --no-deps --require-hashes -r "$ROOT/requirements/base.txt" -r "$ROOT/requirements/s3.txt" -r "$ROOT/requirements/dev.txt"
  "$PY" -m pip install -q --disable-pip-version-check --no-deps --require-hashes -r "$ROOT/requirements/cholmod.txt" \
    || say "CHOLMOD cannot be built here: large models are solved with SuperLU, more slowly"
  "$PY" -m pip install -q --disable-pip-version-check --no-deps --no-build-isolation -e "$ROOT/core"
}

# Vite wants a newer Node.js than Debian 12 has; the registry's own `node` package brings one.
use_node() {
  if node -e 'const [a, b] = process.versions.node.split(".").map(Number); process.exit(a > 20 || (a === 20 && b >= 19) ? 0 : 1)' 2>/dev/null; then return; fi
  if [ ! -x "$ROOT/.tools/node_modules/node/bin/node" ]; then
    say "Installing Node.js 22"
    npm install --loglevel=error --no-audit --no-fund --prefix "$ROOT/.tools" node@22.12.0
  fi
  export PATH="$ROOT/.tools/node_modules/node/bin:$PATH"
}

install_web() {
  use_node
  mkdir -p "$ROOT/web/node_modules"
  done_once "$ROOT/web/node_modules/.installed" "$(sum_of "$ROOT/web/package-lock.json")" npm_install
  # the client's types are made from the API's document, never by hand
  [ -f "$ROOT/web/src/shared/api/schema.d.ts" ] || rm -f "$ROOT/web/node_modules/.client"
  done_once "$ROOT/web/node_modules/.client" "$(sum_of "$ROOT/server/openapi.json" "$ROOT/web/package.json")" make_client
}
make_client() { (cd "$ROOT/web" && npm run --silent client >/dev/null); }
npm_install() {
  say "Installing npm packages"
  (cd "$ROOT/web" && npm ci --loglevel=error --no-audit --no-fund)
}

web_sources() { (cd "$ROOT/web" && find src index.html package-lock.json vite.config.ts tsconfig.json -type f | sort | xargs sha256sum | sha256sum | cut -d' ' -f1); }

build_web() {
  mkdir -p "$ROOT/.tools"
  [ -f "$ROOT/web/dist/index.html" ] || rm -f "$ROOT/.tools/web-built"
  done_once "$ROOT/.tools/web-built" "$(web_sources)" web_build
}
web_build() {
  say "Building the web application"
  (cd "$ROOT/web" && npm run --silent build -- --logLevel warn)
  "$PY" -m whitenoise.compress -q "$ROOT/web/dist"
}

port_is_free() { "$PY" -c 'import socket, sys; s = socket.socket(); s.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1); s.bind(("127.0.0.1", int(sys.argv[1])))' "$1" 2>/dev/null; }
free_port() { "$PY" -c 'import socket; s = socket.socket(); s.bind(("127.0.0.1", 0)); print(s.getsockname()[1])'; }

# --- a PostgreSQL cluster of the project's own, on loopback only
start_postgres() {
  local bin; bin=$(pg_bin)
  mkdir -p "$DATA"
  if [ "$(id -u)" = 0 ]; then mkdir -p "$PG"; chown postgres "$PG"; chmod 755 "$DATA"; fi
  # one set-up at a time, in case both commands are started together
  exec 9>"$DATA/.lock"; flock 9
  [ -f "$DATA/db-password" ] || (umask 077; head -c 24 /dev/urandom | base64 | tr -d '/+=' > "$DATA/db-password")
  [ -f "$DATA/app-password" ] || (umask 077; head -c 24 /dev/urandom | base64 | tr -d '/+=' > "$DATA/app-password")
  [ -f "$DATA/secret-key" ] || (umask 077; head -c 48 /dev/urandom | base64 | tr -d '\n' > "$DATA/secret-key")
  if ! as_postgres test -f "$PG/PG_VERSION"; then
    say "Making the database cluster in $PG"
    local secret; secret=$(mktemp); cp "$DATA/db-password" "$secret"; chmod 644 "$secret"
    as_postgres "$bin/initdb" -D "$PG" -U plumb --auth=scram-sha-256 --pwfile="$secret" -E UTF8 --locale=C.UTF-8 --data-checksums >/dev/null
    rm -f "$secret"
  fi
  if ! as_postgres "$bin/pg_ctl" -D "$PG" status >/dev/null 2>&1; then run_postgres; fi
  export PLUMB_DB_HOST=127.0.0.1 PLUMB_DB_USER=plumb PLUMB_DB_NAME=plumb
  PLUMB_DB_PORT=$(cat "$DATA/db-port"); PLUMB_DB_PASSWORD=$(cat "$DATA/db-password"); PLUMB_SECRET_KEY=$(cat "$DATA/secret-key")
  export PLUMB_DB_PORT PLUMB_DB_PASSWORD PLUMB_SECRET_KEY
  export PLUMB_EXHIBITS="$DATA/exhibits"
  [ -f "$DATA/roles-made" ] || { make_roles && touch "$DATA/roles-made"; }
  flock -u 9; exec 9>&-
}

# where it was before, if that is free: what is connected to it goes on
run_postgres() {
  local port; port=$(cat "$DATA/db-port" 2>/dev/null || true)
  if [ -z "$port" ] || ! port_is_free "$port"; then port=$(free_port); printf %s "$port" > "$DATA/db-port"; fi
  as_postgres "$(pg_bin)/pg_ctl" -D "$PG" -w -s -l "$PG/server.log" \
    -o "-p $port -c listen_addresses=127.0.0.1 -c unix_socket_directories=''" start 9>&- >/dev/null
}

# --- what bin/start has started is started again where it ended by itself, until bin/stop or another bin/start
begin_serving() { printf %s $$ > "$DATA/serving"; }
end_serving() { rm -f "$DATA/serving"; }
serving() { [ "$(cat "$DATA/serving" 2>/dev/null)" = "$1" ]; }
watch_postgres() { # watch_postgres PID: of the bin/start that it belongs to
  while serving "$1"; do
    sleep 2
    if serving "$1" && ! as_postgres "$(pg_bin)/pg_ctl" -D "$PG" status >/dev/null 2>&1; then
      say "PostgreSQL ended and is started again"
      run_postgres || true
    fi
  done
}

# the application's role and the backup's; what they may do is granted in each database (manage.py grant_roles)
make_roles() {
  PLUMB_APP_PASSWORD=$(cat "$DATA/app-password") "$PY" - <<'PYTHON'
import os, psycopg
from psycopg import sql
with psycopg.connect(host="127.0.0.1", port=os.environ["PLUMB_DB_PORT"], user="plumb",
                     password=os.environ["PLUMB_DB_PASSWORD"], dbname="postgres", autocommit=True) as db:
    for role in ("plumb_app", "plumb_backup"):
        if not db.execute("SELECT 1 FROM pg_roles WHERE rolname = %s", [role]).fetchone():
            db.execute(sql.SQL("CREATE ROLE {} LOGIN").format(sql.Identifier(role)))
        db.execute(sql.SQL("ALTER ROLE {} PASSWORD {}").format(sql.Identifier(role), sql.Literal(os.environ["PLUMB_APP_PASSWORD"])))
PYTHON
}

# the database itself, its tables, its roles and the demo's data, in one process to be quick; all of it by the owner
prepare_database() {
  (cd "$ROOT/server" && DJANGO_SETTINGS_MODULE=plumb_server.settings "$PY" - <<'PYTHON'
import django, os, psycopg
with psycopg.connect(host="127.0.0.1", port=os.environ["PLUMB_DB_PORT"], user="plumb",
                     password=os.environ["PLUMB_DB_PASSWORD"], dbname="postgres", autocommit=True) as db:
    if not db.execute("SELECT 1 FROM pg_database WHERE datname = 'plumb'").fetchone():
        db.execute("CREATE DATABASE plumb")
django.setup()
from django.core.management import call_command
call_command("migrate", verbosity=0)
call_command("seed_demo")
call_command("grant_roles")
PYTHON
  )
}

# from here on as the application, which owns nothing
as_application() { export PLUMB_DB_USER=plumb_app; PLUMB_DB_PASSWORD=$(cat "$DATA/app-password"); export PLUMB_DB_PASSWORD; }

# --- nginx in front: it takes slow senders off the application's hands (deploy/limits.conf)
stop_nginx() {
  local pid; pid=$(cat "$DATA/nginx/nginx.pid" 2>/dev/null || true)
  if [ -n "$pid" ] && grep -aq nginx "/proc/$pid/cmdline" 2>/dev/null; then
    kill "$pid" 2>/dev/null || true
    for _ in $(seq 50); do kill -0 "$pid" 2>/dev/null || return 0; sleep 0.1; done
  fi
}
start_nginx() { # start_nginx PORT BEHIND: on a loopback port, in front of the application at another
  local own="$DATA/nginx"; mkdir -p "$own"
  cat > "$own/nginx.conf" <<CONF
worker_processes 1;
pid $own/nginx.pid;
error_log $own/error.log warn;
events { worker_connections 4096; }
http {
  access_log off;
  client_body_temp_path $own/body; proxy_temp_path $own/proxy; fastcgi_temp_path $own/f; uwsgi_temp_path $own/u; scgi_temp_path $own/s;
  include $ROOT/deploy/limits.conf;
  server {
    listen 127.0.0.1:$1;
    location / { proxy_pass http://127.0.0.1:$2; include $ROOT/deploy/proxy.conf; }
  }
}
CONF
  # as root nginx would hand its work to a user who cannot read this folder
  [ "$(id -u)" != 0 ] || sed -i '1i user root;' "$own/nginx.conf"
  nginx -e "$own/error.log" -c "$own/nginx.conf"
}

# --- the worker that carries out the jobs of the queue, started again whenever it ends
stop_worker() {
  local pid; pid=$(cat "$DATA/worker.pid" 2>/dev/null || true)
  if [ -n "$pid" ] && grep -aq run_worker "/proc/$pid/cmdline" 2>/dev/null; then
    kill -- "-$pid" 2>/dev/null || true
  fi
}
start_worker() {
  stop_worker
  # CHOLMOD and NumPy share the machine with the server: one worker, at a lower priority
  (cd "$ROOT/server" && exec setsid nohup nice -n 5 bash -c '
    while true; do "$0" manage.py run_worker; sleep 1; done' "$PY" run_worker >>"$DATA/worker.log" 2>&1 </dev/null & echo $! > "$DATA/worker.pid")
}

# --- the application itself
stop_server() {
  end_serving
  local pid; pid=$(cat "$DATA/gunicorn.pid" 2>/dev/null || true)
  if [ -z "$pid" ] || ! grep -aq gunicorn "/proc/$pid/cmdline" 2>/dev/null; then return 0; fi
  kill "$pid" 2>/dev/null || true
  # its port is free again only when it has ended
  for _ in $(seq 100); do kill -0 "$pid" 2>/dev/null || return 0; sleep 0.1; done
  kill -9 "$pid" 2>/dev/null || true
}

# --- the simulated hazard service, a process of its own on a free loopback port
stop_hazard() {
  local pid; pid=$(cat "$DATA/hazard.pid" 2>/dev/null || true)
  if [ -n "$pid" ] && grep -aq hazard "/proc/$pid/cmdline" 2>/dev/null; then kill -- "-$pid" 2>/dev/null || true; fi
}
start_hazard() {
  stop_hazard
  local port; port=$(free_port)
  (exec setsid nohup bash -c '
    while true; do "$0" --chdir "$1/hazard" service:application --bind "127.0.0.1:$2" --workers 1 --threads 2 --log-level warning; sleep 1; done' \
    "$VENV/bin/gunicorn" "$ROOT" "$port" >>"$DATA/hazard.log" 2>&1 </dev/null & echo $! > "$DATA/hazard.pid")
  export PLUMB_HAZARD_URL="http://127.0.0.1:$port"
}
