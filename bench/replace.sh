#!/usr/bin/env bash
# How long a program does not answer while it is replaced: ended and started again, and behind nginx.
# Usage: bench/replace.sh PROGRAM_FOLDER    (ROUNDS=5; needs a JDK 17 and nginx)
set -euo pipefail
here=$(cd "$(dirname "$0")" && pwd)
jolly=$(cd "$1" && pwd)/bin/jolly
rounds=${ROUNDS:-5}
stage=$(mktemp -d)
http=$((20000 + RANDOM % 10000)) beside=$((http + 1)) front=$((http + 2))
cd "$stage"
trap '"$jolly" server stop bare >/dev/null; "$jolly" server stop fronted >/dev/null; kill "$(cat ng/nginx.pid)" 2>/dev/null; rm -rf "$stage"' EXIT

mkdir src ng
cat >src/Bell.java <<'JAVA'
public class Bell {
  public static void main(String[] args) throws Exception {
    var server = com.sun.net.httpserver.HttpServer.create(
        new java.net.InetSocketAddress("127.0.0.1", Integer.parseInt(args[0])), 0);
    server.createContext("/", exchange -> {
      byte[] body = "ding".getBytes();
      exchange.sendResponseHeaders(200, body.length);
      exchange.getResponseBody().write(body);
      exchange.close();
    });
    server.start();
  }
}
JAVA
javac -d classes src/Bell.java
printf 'Main-Class: Bell\n' >manifest
jar cfm bell.jar manifest -C classes .
cat >jolly.toml <<'TOML'
name = "bell"
artifact = "bell.jar"
[program]
port = { argument = "{value}" }
variables = { ROUND = "0" }
[[check]]
get = "/"
TOML
"$jolly" server new bare --kind service --http "$http" >/dev/null
"$jolly" server new fronted --kind service --http "$((http + 3))" >/dev/null
nginx=(nginx -p "$stage/ng" -c nginx.conf -e error.log)
cat >>servers.toml <<TOML
beside = $beside
[server.fronted.front]
config   = "ng/nginx.conf"
upstream = "bell"
url      = "http://127.0.0.1:$front"
test     = ["nginx", "-p", "$stage/ng", "-c", "nginx.conf", "-e", "error.log", "-t"]
reload   = ["nginx", "-p", "$stage/ng", "-c", "nginx.conf", "-e", "error.log", "-s", "reload"]
TOML
cat >ng/nginx.conf <<NGINX
pid nginx.pid; error_log error.log; worker_processes 2;
events {}
http {
  access_log off;
  client_body_temp_path t1; proxy_temp_path t2; fastcgi_temp_path t3; uwsgi_temp_path t4; scgi_temp_path t5;
  upstream bell { server 127.0.0.1:9; }
  server { listen 127.0.0.1:$front; location / { proxy_pass http://bell; } }
}
NGINX
"${nginx[@]}"
"$jolly" deploy --to bare >/dev/null
"$jolly" deploy --to fronted >/dev/null
for round in $(seq "$rounds"); do
  sed -i "s/ROUND = .*/ROUND = \"$round\" }/" jolly.toml
  for way in bare fronted; do
    port=$([ "$way" = bare ] && echo "$http" || echo "$front")
    rm -f end
    java "$here/Gap.java" "http://127.0.0.1:$port/" end >"$way.out" &
    asking=$!
    "$jolly" deploy --to "$way" >/dev/null
    touch end
    wait "$asking"
    printf '%-8s round %s: %s\n' "$way" "$round" "$(cat "$way.out")"
  done
done
