#!/bin/sh
# Feeds mutated archives, descriptors and descriptions to the readers in one process, each with a
# limit, and counts how they end. Argument: the folder of the built program. COUNT and SEED may be
# given, and ARCHIVES, a folder of further small archives to begin from. Inputs that were a fault
# are kept in fuzz-faults/ of the current folder; exit code 1 then.
set -e
program=$(cd "$1" && pwd)
here=$(cd "$(dirname "$0")" && pwd)
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
mkdir "$work/archives" "$work/descriptions"
cp -r "$program/samples/spokes" "$work/spokes"
(cd "$work/spokes" && SPOKES_DB_PASSWORD=x ROBIN_PASSWORD=x MIA_PASSWORD=x "$program/bin/jolly" pack --all >/dev/null)
find "$work/spokes" -name '*.war' -size -3000k -exec cp {} "$work/archives" \;
if [ -n "$ARCHIVES" ]; then cp "$ARCHIVES"/* "$work/archives"; fi
for sample in "$program"/samples/*/jolly.toml; do
  cp "$sample" "$work/descriptions/$(basename "$(dirname "$sample")").toml"
done
cp "$here/fuzz-servers.toml" "$work/descriptions/servers.toml"
java -Xmx600m -cp "$program/lib/*" "$here/Fuzz.java" \
  "$work/archives" "$work/descriptions" "${COUNT:-20000}" "${SEED:-1}"
