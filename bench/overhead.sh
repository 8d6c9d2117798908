#!/usr/bin/env bash
# What a delivery costs beside the same thing done by hand: the archive copied into the server's
# folder, and its page asked for until the new release answers with 200. In turns, on one practice
# server, of one small application and of the same with 60 MB in it.
# Usage: bench/overhead.sh PROGRAM_FOLDER    (ROUNDS=7; needs a JDK 17)
set -euo pipefail
jolly=$(cd "$1" && pwd)/bin/jolly
rounds=${ROUNDS:-7}
stage=$(mktemp -d)
http=$((20000 + RANDOM % 10000))
cd "$stage"
export JOLLY_DATA="$stage/data"
trap '"$jolly" server stop bench >/dev/null; rm -rf "$stage"' EXIT

for release in a b; do
  mkdir -p "$release/WEB-INF"
  echo "<web-app/>" >"$release/WEB-INF/web.xml"
  echo "release $release" >"$release/release.txt"
  jar --create --file "small-$release.war" -C "$release" .
  head -c 60000000 /dev/urandom >"$release/WEB-INF/ballast"
  jar --create --file "large-$release.war" -C "$release" .
done
"$jolly" server new bench --http "$http" --admin $((http + 1)) >/dev/null
"$jolly" server start bench >/dev/null

answers() { [ "$(wget -qO- "http://127.0.0.1:$http/$1/release.txt" 2>/dev/null)" = "release $2" ]; }
by_hand() {
  cp "$1-$2.war" "servers/bench/$1.part"
  mv "servers/bench/$1.part" "servers/bench/webapps/hand-$1.war"
  until answers "hand-$1" "$2"; do sleep 0.02; done
}
by_jolly() {
  cat >jolly.toml <<TOML
name = "$1"
artifact = "$1-$2.war"
[[check]]
get = "/release.txt"
text = "release $2"
TOML
  "$jolly" deploy --to bench >/dev/null
  answers "$1" "$2"
}
ms() {
  local begin=$(date +%s%N)
  "$@" >&2
  echo $((($(date +%s%N) - begin) / 1000000))
}
median() { sort -n | sed -n "$(((rounds + 1) / 2))p"; }

for size in small large; do
  by_hand $size b
  by_jolly $size b
  : >hand.ms
  : >jolly.ms
  for round in $(seq "$rounds"); do
    release=$([ $((round % 2)) -eq 1 ] && echo a || echo b)
    ms by_hand $size "$release" >>hand.ms
    ms by_jolly $size "$release" >>jolly.ms
  done
  hand=$(median <hand.ms) by=$(median <jolly.ms)
  echo "$size: by hand $hand ms, by jolly $by ms, ratio $(echo "scale=2; $by / $hand" | bc)"
done
