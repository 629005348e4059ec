#!/usr/bin/env bash
# A private PostgreSQL cluster for this checkout, in var/pg, on loopback only.
# Usage: postgres.sh start|keep|stop|status|url. `keep` starts it again whenever it dies, on the same port. Works as root (runs the server as a system user) and as anyone else.
set -euo pipefail
root=$(cd "$(dirname "$0")/.." && pwd -P)
var=$root/var
database=tropo

newest_bin() {
  local dir
  for dir in $(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -t/ -k5 -rV); do
    [ -x "$dir/initdb" ] && { echo "$dir"; return; }
  done
  dir=$(command -v initdb || true)
  [ -n "$dir" ] && { dirname "$(readlink -f "$dir")"; return; }
  echo "PostgreSQL is not installed (package postgresql)." >&2
  exit 1
}

mkdir -p "$var"
base=$var/pg
if [ "$(id -u)" = 0 ]; then
  owner=postgres
  id "$owner" >/dev/null 2>&1 || useradd --system --no-create-home --shell /usr/sbin/nologin "$owner"
  if [ ! -e "$base" ] && ! runuser -u "$owner" -- test -x "$var"; then
    # The checkout lies below a closed folder, such as a home: keep the cluster outside and link to it.
    outside=/var/lib/tropometer-pg/$(printf %s "$root" | sha256sum | cut -c1-12)
    install -d -m 755 /var/lib/tropometer-pg
    install -d -m 700 -o "$owner" -g "$owner" "$outside"
    ln -sfn "$outside" "$base"
  fi
  if [ -d "$base" ] && [ "$(stat -Lc %U "$base")" != root ]; then
    owner=$(stat -Lc %U "$base") # first started by somebody else: stay with the owner of the data
  fi
  [ -d "$base" ] || install -d -m 700 -o "$owner" -g "$owner" "$base"
  as() { (cd / && exec runuser -u "$owner" -- "$@"); }
else
  [ -d "$base" ] || install -d -m 700 "$base"
  as() { (cd / && exec "$@"); }
fi
base=$(readlink -f "$base") # by a way that its owner can go
data=$base/data log=$base/log port_file=$base/port password_file=$base/password
bin=$(newest_bin)
major=$(as cat "$data/PG_VERSION" 2>/dev/null || true)
[ -n "$major" ] && [ -x "/usr/lib/postgresql/$major/bin/pg_ctl" ] && bin=/usr/lib/postgresql/$major/bin

running() { as "$bin/pg_ctl" -D "$data" status >/dev/null 2>&1; }
ready() { "$bin/pg_isready" -q -h 127.0.0.1 -p "$(as cat "$port_file")" -t 2; }
url() { echo "postgresql://tropo:$(as cat "$password_file")@127.0.0.1:$(as cat "$port_file")/$database"; }
free_port() { python3 -c 'import socket; s = socket.socket(); s.bind(("127.0.0.1", 0)); print(s.getsockname()[1])'; }

is_free() { python3 -c 'import socket, sys; s = socket.socket(); s.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1); s.bind(("127.0.0.1", int(sys.argv[1])))' "$1" 2>/dev/null; }

make_cluster() {
  exec 9>"$var/pg.making"
  flock 9 # of two first starts at once one makes it
  if as test -d "$data"; then exec 9>&-; return; fi
  as sh -c 'umask 077; head -c 24 /dev/urandom | base64 | tr -dc A-Za-z0-9 >"$1"' _ "$password_file"
  as rm -rf "$data.tmp"
  as "$bin/initdb" -D "$data.tmp" -U tropo --pwfile="$password_file" --auth=scram-sha-256 \
    -E UTF8 --locale=C.UTF-8 --data-checksums >/dev/null
  as mv "$data.tmp" "$data" # an initdb killed half-way leaves no broken cluster
  exec 9>&-
}

start() {
  exec 8>"$var/pg.starting"
  flock 8 # of two starts at once one starts it; the other would name a port that nobody listens on
  as test -s "$data/PG_VERSION" || make_cluster
  # A server that was killed can look alive for a moment: wait until it answers or is gone.
  for _ in $(seq 150); do running || break; ready && break; sleep 0.1; done
  if ! running; then
    for try in 1 2 3 4 5; do
      port=$(as cat "$port_file" 2>/dev/null || true)
      # Whoever is connected knows the port: another is taken only when nobody can be, and that one is not free.
      if [ -z "$port" ] || { [ "${keeping:-}" != yes ] && ! is_free "$port"; }; then port=$(free_port); fi
      as sh -c 'echo "$1" >"$2"' _ "$port" "$port_file"
      # No unix socket: its path may be too long, and the usual folder needs root.
      as "$bin/pg_ctl" -D "$data" -l "$log" -w -t 60 -o \
        "-c listen_addresses=127.0.0.1 -p $port -c unix_socket_directories='' -c max_connections=60" \
        start >/dev/null 2>&1 </dev/null 8>&- && break
      [ "$try" = 5 ] && { as tail -20 "$log" >&2; exit 1; }
    done
  fi
  for _ in $(seq 100); do ready && break; sleep 0.1; done
  ready || { echo "PostgreSQL does not answer." >&2; as tail -20 "$log" >&2; exit 1; }
  local address
  address=$(url)
  "$bin/psql" -qAt "${address%/*}/postgres" -c "select 1 from pg_database where datname = '$database'" | grep -q 1 ||
    "$bin/psql" -q "${address%/*}/postgres" -c "create database $database"
  exec 8>&-
}

case "${1:-}" in
  start) start ;;
  keep)
    keeping=yes
    trap 'exit 0' INT TERM
    while true; do
      running || (start) || true
      sleep 1 &
      wait $!
    done
    ;;
  stop) running && as "$bin/pg_ctl" -D "$data" -m fast -w stop >/dev/null || true ;;
  status) running ;;
  url) url ;;
  *) echo "usage: $0 start|keep|stop|status|url" >&2; exit 2 ;;
esac
