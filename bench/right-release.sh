#!/bin/sh
# Counts how often the right release answers when jolly returns, on a server that looks for changes
# only every 10 s: ROUNDS deliveries of another release, then ROUNDS deliveries that fail and are
# taken back. Argument: the folder of the built program. Prints two lines.
set -e
program=$1
rounds=${ROUNDS:-10}
work=$(mktemp -d)
cp -r "$program/samples/spokes" "$work/spokes"
cd "$work/spokes"
export JOLLY_DATA="$work/data" SPOKES_DB_PASSWORD=chain ROBIN_PASSWORD=tandem MIA_PASSWORD=freewheel
jolly() { "$program/bin/jolly" "$@"; }
jolly server new bench >/dev/null
port=$(sed -n 's/^http = //p' servers.toml)
sed -i 's/backgroundProcessorDelay="1"/backgroundProcessorDelay="10"/' servers/bench/conf/server.xml
trap 'jolly server stop bench >/dev/null; rm -rf "$work"' EXIT
jolly deploy --to bench >/dev/null
answers() { wget -qO- "http://127.0.0.1:$port/spokes/" | grep -q "version $1"; }

now=1.4.0 right=0 round=0
while [ "$round" -lt "$rounds" ]; do
  round=$((round + 1))
  if [ "$now" = 1.4.0 ]; then next=1.5.0; else next=1.4.0; fi
  sed -i "s/$now/$next/g" jolly.toml
  jolly deploy --to bench >/dev/null && answers "$next" && right=$((right + 1))
  now=$next
done
echo "after deploy: the new release answered $right of $rounds times"

right=0 round=0
while [ "$round" -lt "$rounds" ]; do
  round=$((round + 1))
  sed -i "s/$now/1.6.0/g" jolly.toml
  jolly deploy --to bench >/dev/null || true
  answers "$now" && right=$((right + 1))
  sed -i "s/1\.6\.0/$now/g" jolly.toml
done
echo "after a take-back: the old release answered $right of $rounds times"
