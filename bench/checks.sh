#!/usr/bin/env bash
# How many requests a second a timed check makes, beside wrk at the same concurrency: in turns, of
# one small file of Spokes on its practice server, with which both share the machine.
# Usage: bench/checks.sh PROGRAM_FOLDER    (ROUNDS=5, AT_ONCE=8; needs a JDK 17 and wrk)
set -euo pipefail
program=$(cd "$1" && pwd)
jolly=$program/bin/jolly
rounds=${ROUNDS:-5}
at_once=${AT_ONCE:-8}
stage=$(mktemp -d)
http=$((20000 + RANDOM % 10000))
cp -r "$program/samples/spokes" "$stage/spokes"
cd "$stage/spokes"
export JOLLY_DATA="$stage/data" SPOKES_DB_PASSWORD=chain ROBIN_PASSWORD=tandem MIA_PASSWORD=freewheel
trap '"$jolly" server stop bench >/dev/null || true; rm -rf "$stage"' EXIT

"$jolly" server new bench --http "$http" --admin $((http + 1)) >/dev/null
"$jolly" deploy --to bench >/dev/null
ours() {
  cat >jolly.toml <<TOML
name = "spokes"
artifact = "packed/spokes-1.4.0.war"
[app]
path = "/spokes"
[[check]]
get = "/style.css"
time = { requests = 40000, at-once = $at_once }
TOML
  "$jolly" check --on bench --json | sed -n 's/.*"perSecond" : \([0-9.]*\).*/\1/p'
}
theirs() { wrk -t2 "-c$at_once" -d4s "http://127.0.0.1:$http/spokes/style.css" | sed -n 's/Requests.sec: *//p'; }
median() { sort -n | sed -n "$(((rounds + 1) / 2))p"; }

for round in $(seq "$rounds"); do
  ours >>"$stage/jolly"
  theirs >>"$stage/wrk"
done
a=$(median <"$stage/jolly") b=$(median <"$stage/wrk")
echo "requests a second at $at_once at once, medians of $rounds rounds"
echo "jolly ${a%.*}, wrk ${b%.*}, ratio $(awk "BEGIN { printf \"%.2f\", $a / $b }")"
