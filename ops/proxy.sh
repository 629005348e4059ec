#!/usr/bin/env bash
# Writes var/nginx/nginx.conf: the proxy that takes slow senders and readers off the web server.
# Usage: proxy.sh LISTEN WEB LIVE, each as host:port. It speaks TLS itself where TROPO_TLS_CERT and TROPO_TLS_KEY
# name the files of a certificate and its key.
set -euo pipefail
cd "$(dirname "$(readlink -f "$0")")/.."
tls=
if [ -n "${TROPO_TLS_CERT:-}" ]; then
  for each in "$TROPO_TLS_CERT" "${TROPO_TLS_KEY:?name the key of TROPO_TLS_CERT}"; do
    [ -r "$each" ] || { echo "TROPO_TLS_CERT, TROPO_TLS_KEY: $each cannot be read." >&2; exit 2; }
  done
  tls="ssl_certificate $(readlink -f "$TROPO_TLS_CERT"); ssl_certificate_key $(readlink -f "$TROPO_TLS_KEY"); ssl_protocols TLSv1.2 TLSv1.3;"
fi
# Single quotes: what has a $ is nginx's own.
rooms='
    location /live/ {
      if ($http_upgrade !~* ^websocket$) { return 404; }
      proxy_pass http://live;
      proxy_http_version 1.1;
      proxy_set_header Upgrade $http_upgrade;
      proxy_set_header Connection upgrade;
      proxy_set_header Host $http_host;
      proxy_set_header X-Forwarded-For $proxy_add_x_forwarded_for;
      proxy_set_header X-Forwarded-Proto $spoken;
      proxy_read_timeout 60s;  # the server asks every two seconds
      proxy_buffering off;
    }
    location / {
      proxy_pass http://web;
      proxy_http_version 1.1;
      proxy_set_header Connection "";
      proxy_set_header Host $http_host;
      proxy_set_header X-Forwarded-For $proxy_add_x_forwarded_for;
      proxy_set_header X-Forwarded-Proto $spoken;
      proxy_set_header Accept-Encoding $packing;
      proxy_request_buffering on;
      proxy_read_timeout 300s;
      proxy_max_temp_file_size 700m;
    }
'
# The demo's other address: the same, with cameras on every page that are not there.
camera=
if [ -n "${TROPO_CAMERA_WEB:-}" ]; then
  camera="server {
    listen 127.0.0.1:$TROPO_CAMERA_WEB;
    sub_filter \"</head>\" \"<script src=/stand-in/camera.js></script></head>\";
    types { text/javascript js; application/json json; image/jpeg mjpeg; }
    location /stand-in/ { alias $PWD/web/standins/; }
    location /stand-in/tries/ { alias $PWD/var/tries/; }
    $rooms
  }"
fi
mkdir -p var/nginx/temp
cat >var/nginx/nginx.conf <<CONF
daemon off;
pid $PWD/var/nginx/pid;
error_log stderr warn;
worker_processes 2;
$([ "$(id -u)" != 0 ] || echo "user $(id -un) $(id -gn);")
events { worker_connections 2048; }
http {
  access_log off;  # addresses hold private links
  server_tokens off;
  client_body_temp_path $PWD/var/nginx/temp/body;
  proxy_temp_path $PWD/var/nginx/temp/proxy;
  fastcgi_temp_path $PWD/var/nginx/temp/fastcgi;
  uwsgi_temp_path $PWD/var/nginx/temp/uwsgi;
  scgi_temp_path $PWD/var/nginx/temp/scgi;
  # Files come in pieces of 2 MB, kept one by one: a sender that vanishes loses one of them at most.
  client_max_body_size 16m;
  client_body_buffer_size 128k;
  client_header_timeout 10s;
  client_body_timeout 20s;
  send_timeout 30s;
  keepalive_timeout 30s;
  reset_timedout_connection on;
  limit_conn_zone \$binary_remote_addr zone=address:10m;
  limit_conn address 100;
  limit_conn_status 429;
  gzip on;
  gzip_proxied any;
  gzip_min_length 1000;
  gzip_types application/json application/problem+json text/css text/javascript application/javascript image/svg+xml;
  # A proxy before this one that speaks TLS says so.
  map \$http_x_forwarded_proto \$spoken { default \$http_x_forwarded_proto; "" \$scheme; }
  # To a page that is packed no script can be added.
  map \$server_port \$packing { default \$http_accept_encoding; ${TROPO_CAMERA_WEB:-0} ""; }
  upstream web { server $2; keepalive 16; }
  upstream live { server $3; }
  server {
    listen $1${tls:+ ssl};
    $tls
    $rooms
  }
  $camera
}
CONF
