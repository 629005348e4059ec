#!/usr/bin/env bash
# Keeps processes running: one that dies is started again, the others go on meanwhile.
# Usage: supervise.sh NAME…; runs in the foreground until it is told to stop.
set -euo pipefail
cd "$(dirname "$(readlink -f "$0")")/.."

declare -A commands=(
  [database]="bash ops/postgres.sh keep"
  [web]="./tropo web"
  [live]="./tropo live"
  [worker]="./tropo worker"
  [upkeep]="./tropo upkeep"
  [proxy]="nginx -p $PWD/var/nginx -c $PWD/var/nginx/nginx.conf"
  [mail]="var/venv/bin/python -m tropometer.standins.mail --smtp ${TROPO_MAIL_SMTP:-1025} --web ${TROPO_MAIL_WEB:-8025} --folder var/mail"
  [bay]="var/venv/bin/python -m tropometer.standins.bay_page --web ${TROPO_BAY_WEB:-8026} --hour demo/hour.json.gz"
)
# A worker is given time to hand its clip back.
declare -A patience=([worker]=40)

mkdir -p var
{
  cat <<CONF
[supervisord]
nodaemon=true
loglevel=warn
logfile=/dev/null
logfile_maxbytes=0
pidfile=$PWD/var/supervisord.pid
CONF
  for name in "$@"; do
    cat <<CONF

[program:$name]
command=${commands[$name]}
directory=$PWD
autorestart=true
startsecs=1
startretries=100000
stopwaitsecs=${patience[$name]:-10}
stopasgroup=$([ "$name" = proxy ] && echo false || echo true)
killasgroup=true
redirect_stderr=true
stdout_logfile=/dev/fd/1
stdout_logfile_maxbytes=0
CONF
  done
} >var/supervisord.conf
[ "$(id -u)" != 0 ] || sed -i '/^nodaemon/a user=root' var/supervisord.conf
exec var/venv/bin/supervisord -c var/supervisord.conf
