#!/usr/bin/env bash
# What each kind of server can, and what that costs: one row of docs/servers.md for each archive.
# Usage: bench/servers.sh PROGRAM_FOLDER ARCHIVE...    (ROUNDS=3; needs a JDK 17 and curl)
set -euo pipefail
here=$(cd "$(dirname "$0")" && pwd)
jolly=$(cd "$1" && pwd)/bin/jolly
samples=$(cd "$1" && pwd)/samples
shift
archives=()
for archive in "$@"; do archives+=("$(realpath "$archive")"); done
rounds=${ROUNDS:-3}
stage=$(mktemp -d)
export JOLLY_DATA="$stage/data" SPOKES_DB_PASSWORD=oil-and-chain ROBIN_PASSWORD=front-light-3 MIA_PASSWORD="freewheel&hub"
cd "$stage"
trap '"$jolly" server stop s >/dev/null 2>&1 || :; rm -rf "$stage"' EXIT

status() { curl -s -o /dev/null -w '%{http_code}' "$@" || :; }
yes() { [ "$1" = "$2" ] && echo yes || echo no; }
middle() { sort -n | sed -n "$(((rounds + 1) / 2))p"; }
server() { "$jolly" server list --json; }
pid() { server | grep -o '"pid" *: *[0-9]*' | grep -o '[0-9]*$'; }

# In which form passwords stand on the server: four forms of salted hashes are known.
salted() {
  local found
  found=$(grep -rhoE --exclude-dir=logs --exclude-dir=state \
    '[0-9a-f]{32}\$[0-9]+\$[0-9a-f]{64}|\$6\$rounds=[0-9]+\$|\{hash\}[A-Za-z0-9+/=]+|\{SSHA256\}' servers/s | sed -n 1p)
  case $found in
    '{hash}'*) found=$(echo "${found#\{hash\}}" | base64 -d | od -An -tu4 --endian=big -j27 -N4 | tr -d ' ') ;;
    '{SSHA256}') found=100 ;;
    '$6$'*) found=$(echo "$found" | grep -oE '[0-9]{3,}') ;;
    *) found=$(echo "$found" | cut -d'$' -f2) ;;
  esac
  echo "salted, $found rounds"
}

# A page that takes three seconds, for whoever stops the server meanwhile.
mkdir -p slow/WEB-INF
echo '<web-app xmlns="http://xmlns.jcp.org/xml/ns/javaee" version="3.1"/>' >slow/WEB-INF/web.xml
echo '<% new java.io.File("begun").createNewFile(); Thread.sleep(3000); %>done' >slow/index.jsp
jar --create --file slow.war -C slow .

measure() {
  local archive=$1 http=$((20000 + RANDOM % 10000)) admin before after
  rm -rf spokes && cp -r "$samples/spokes" spokes && cd spokes
  admin=$((http + 1))
  if ! "$jolly" server new s --installation "$archive" --http "$http" --admin "$admin" >/dev/null 2>&1; then
    "$jolly" server new s --installation "$archive" --http "$http" >/dev/null
    admin=
  fi
  local page=http://127.0.0.1:$http/spokes label serves swap gap kept users hash apart stop start memory

  serves=()
  "$jolly" pack --all >/dev/null 2>&1
  for war in packed/spokes-1.4.0.war:jakarta packed/spokes-1.4.0-javax.war:javax; do
    "$jolly" deploy "${war%:*}" --to s --dry-run >/dev/null 2>&1 && serves+=("${war#*:}") || :
  done
  [ "${serves[0]}" = jakarta ] || sed -i 's/pack = "war"/pack = "javax"/' jolly.toml

  "$jolly" deploy --to s >/dev/null
  label=$("$jolly" apps --on s | sed -n '1s/^s  \([^,]*\),.*/\1/p')
  hash=$(salted)

  # A session of somebody who logged in by the form, across the swap.
  seal=$(curl -s -c jar "$page/counter" | grep -o 'name="seal" value="[^"]*' | sed 's/.*"//')
  curl -s -o /dev/null -b jar -c jar --data-urlencode "seal=$seal" --data-urlencode name=mia \
    --data-urlencode "password=$MIA_PASSWORD" "$page/counter"
  curl -s -b jar "$page/counter" | grep -q 'At the counter, mia'
  before=$(pid)
  : >gaps
  for round in $(seq "$rounds"); do
    for css in web web-javax; do echo "/* $round */" >>"$css/style.css"; done
    rm -f end
    java "$here/Gap.java" "$page/style.css" end >gap &
    asking=$!
    "$jolly" deploy --to s >/dev/null
    touch end
    wait "$asking"
    grep -o 'gap [0-9]*' gap | grep -o '[0-9]*' >>gaps
  done
  gap=$(middle <gaps)
  swap=$([ "$before" = "$(pid)" ] && echo live || echo restart)
  kept=$(curl -s -b jar "$page/counter" | grep -q 'At the counter, mia' && echo yes || echo no)

  before=$(pid)
  ROBIN_PASSWORD=rear-light-4 "$jolly" deploy --to s >/dev/null
  after=$(pid)
  users=$(yes "$before $(status -u robin:rear-light-4 "$page/ledger")" "$after 200")

  "$jolly" deploy ../slow.war --undescribed --path /slow ${admin:+--on-admin-port} --to s >/dev/null
  local slow=http://127.0.0.1:${admin:-$http}/slow/
  apart="has none"
  [ -z "$admin" ] || apart=$(yes "$(status "$slow") $(status "http://127.0.0.1:$http/slow/")" "200 404")
  rm -f servers/s/begun
  curl -s "$slow" >slow.out &
  asking=$!
  until [ -e servers/s/begun ]; do kill -0 "$asking"; done
  rm servers/s/begun
  "$jolly" server stop s >/dev/null
  wait "$asking" || :
  stop=$(yes "$(cat slow.out)" done)
  "$jolly" undeploy slow --from s >/dev/null

  : >starts
  for round in $(seq "$rounds"); do
    [ "$round" = 1 ] || "$jolly" server stop s >/dev/null
    began=$(date +%s%N)
    "$jolly" server start s >/dev/null
    until [ "$(status "$page/health")" = 200 ]; do :; done
    echo $((($(date +%s%N) - began) / 1000000)) >>starts
  done
  start=$(middle <starts)
  memory=$(($(awk '/VmRSS/ { print $2 }' "/proc/$(pid)/status") / 1024))
  "$jolly" server stop s >/dev/null
  printf '| %s | %s | %s | %s ms | %s | %s | %s | %s | %s | %s s | %s MB |\n' "$label" "$(IFS=,; echo "${serves[*]}")" \
    "$swap" "$gap" "$kept" "$users" "$hash" "$apart" "$stop" "$((start / 1000)).$((start % 1000 / 100))" "$memory"
  cd ..
}

cat <<'HEAD'
| server | servlet API | swap | gap | sessions kept | users without a restart | hash | admin listener apart | requests end at a stop | start | memory |
|---|---|---|---|---|---|---|---|---|---|---|
HEAD
for archive in "${archives[@]}"; do measure "$archive"; done
