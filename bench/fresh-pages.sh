#!/usr/bin/env bash
# Shows by a real browser that holds a page of the old release whether it shows the new one after a
# delivery: the page keeps its length, as with another fingerprint in it, so that only its time and
# the words about keeping it tell. Needs Chromium. Argument: the folder of the built program. Prints
# a line for each way of delivering; exit code 1 when a page is stale.
set -eu
program=$(cd "$1" && pwd)
work=$(mktemp -d)
cd "$work"
export JOLLY_DATA="$work/data"
jolly() { "$program/bin/jolly" "$@"; }
trap 'jolly server stop bench >/dev/null; [ -z "${run:-}" ] || kill -INT $run; wait; rm -rf "$work"' EXIT
browser() { # the text of a page, as somebody sees it who comes back to it
  chromium --headless --no-sandbox --disable-gpu --disable-quic --no-first-run \
    --disable-background-networking --disable-component-update --disable-sync \
    --user-data-dir="$work/profile" --virtual-time-budget=2000 --dump-dom "$1" 2>/dev/null |
    grep -o 'release [0-9]'
}
page() { echo "<!doctype html><p>release $1</p>" >web/index.html; }
mkdir -p web/WEB-INF classes/spokes
echo 'public class Lamp { String api = "jakarta/servlet/Servlet"; }' >Lamp.java
javac -d classes Lamp.java
page 1
stale=0
look() { # way, address
  local first second
  first=$(browser "$2")
  "$3"
  second=$(browser "$2")
  echo "$1: $first, then $second"
  [ "$first" = "release $4" ] && [ "$second" = "release $5" ] || stale=1
}
jolly server new bench >/dev/null
port=$(sed -n 's/^http = //p' servers.toml | head -1)
deliver() { page 2; jolly deploy --to bench >/dev/null; }
described() {
  cat >jolly.toml <<TOML
name = "lamp"
version = "1"
[pack]
$1
web = "web"
[app]
path = "/lamp"
TOML
  page 1
  jolly deploy --to bench >/dev/null
}
described 'classes = ["classes"]'
look 'plain WAR' "http://127.0.0.1:$port/lamp/" deliver 1 2
described 'shape = "front-end"'
look 'front end' "http://127.0.0.1:$port/lamp/" deliver 1 2
described 'classes = ["classes"]'
jolly run --http 18999 >run.out 2>&1 &
run=$!
until wget -qO- http://127.0.0.1:18999/lamp/ >/dev/null 2>&1; do sleep 0.2; done
pickup() {
  page 3
  until wget -qO- http://127.0.0.1:18999/lamp/ | grep -q 'release 3'; do sleep 0.2; done
}
look 'run from the build output' http://127.0.0.1:18999/lamp/ pickup 1 3
exit $stale
