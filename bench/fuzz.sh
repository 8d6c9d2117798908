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

# Commands, each on a mutated file of those that it reads. LINES may name a folder of archives of
# further servers, whose configurations are then read as those of adopted ones.
cases="$work/cases"
export SPOKES_DB_PASSWORD=x ROBIN_PASSWORD=x MIA_PASSWORD=x KIM_PASSWORD=x JOLLY_DATA="$work/data"
at() { (cd "$1" && shift && "$program/bin/jolly" "$@" >/dev/null 2>&1) || true; }
mkdir -p "$work/draft/src/main/webapp/WEB-INF" "$work/gradle" "$work/pages" "$work/apis"
cp "$here/../samples/spokes/src/main/webapp/WEB-INF/web.xml" "$work/draft/src/main/webapp/WEB-INF"
cat > "$work/draft/pom.xml" <<'END'
<project xmlns="http://maven.apache.org/POM/4.0.0"><groupId>spokes</groupId><artifactId>desk</artifactId>
<version>1.0</version><packaging>war</packaging><dependencies><dependency><groupId>com.h2database</groupId>
<artifactId>h2</artifactId></dependency></dependencies><build><plugins/></build></project>
END
printf "plugins { id 'war' }\nversion = '1.2'\n" > "$work/gradle/build.gradle"
printf '{"name": "desk", "version": "1.0", "scripts": {"build": "vite build"}}' > "$work/pages/package.json"
printf 'name = "desk"\n[app]\npath = "/desk"\n' > "$work/apis/jolly.toml"
cat > "$work/apis/api.yaml" <<'END'
openapi: 3.0.0
info: {title: desk, version: "1"}
servers: [{url: /desk}]
paths:
  /tickets:
    get: {responses: {"200": {description: ok, content: {application/json: {example: [{id: 1}]}}}}}
  /tickets/{id}:
    get:
      parameters: [{name: id, in: path, required: true, schema: {type: integer}, example: 1}]
      responses: {"200": {$ref: "#/components/responses/one"}}
components: {responses: {one: {description: one}}}
END
cat > "$work/apis/calls.har" <<'END'
{"log": {"entries": [{"request": {"method": "GET", "url": "http://127.0.0.1:8080/desk/tickets", "headers": []},
"response": {"status": 200, "headers": [{"name": "Content-Type", "value": "application/json"}],
"content": {"mimeType": "application/json", "text": "{\"open\": 1}"}}}]}}
END
printf '%s\t' "$work/spokes" jolly.toml "deliveries --on none" > "$cases"; echo >> "$cases"
{
  printf '%s\t%s\t%s\n' "$work/draft" pom.xml draft "$work/draft" src/main/webapp/WEB-INF/web.xml draft
  printf '%s\t%s\t%s\n' "$work/gradle" build.gradle draft "$work/pages" package.json draft
  printf '%s\t%s\t%s\n' "$work/apis" api.yaml "draft --checks --openapi api.yaml" \
    "$work/apis" calls.har "draft --checks --har calls.har"
} >> "$cases"
at "$work/spokes" server new fuzz --http 18970
at "$work/spokes" deploy --to fuzz --no-build
at "$work/spokes" server stop fuzz
for command in "deliveries --on fuzz" "deliveries 1 --on fuzz" "settings --on fuzz" "server list" \
  "deploy --to fuzz --no-build --dry-run" "check --on fuzz" "server test fuzz"; do
  printf '%s\t%s\t%s\n' "$work/spokes" servers/fuzz/.jolly "$command" \
    "$work/spokes" servers/fuzz/conf "$command" >> "$cases"
done
mkdir "$work/own"
cp "$work"/archives/spokes-1.4.0.war "$work/own/app.war"
for line in ${LINES:+"$LINES"/*}; do
  name=$(basename "$line" | sed 's/\.tar\.gz$//; s/\.zip$//; s/-//')
  mkdir "$work/own/$name"
  case $line in
    *.zip) unzip -q "$line" -d "$work/own/$name" ;;
    *) tar -xzf "$line" -C "$work/own/$name" ;;
  esac
  home=$(echo "$work/own/$name"/*)
  at "$work/own" server new "$name-made" --installation "$line"
  at "$work/own" server adopt "$home" --name "$name"
  for server in "$name" "$name-made"; do
    folder=$(sed -n "/^\[server\.$server\]/,/^\[/s/^folder *= *\"\(.*\)\"/\1/p" "$work/own/servers.toml")
    [ -n "$folder" ] || continue
    for part in conf etc start.d standalone/configuration domains/domain1/config glassfish/domains/domain1/config \
      usr/servers configuration server.xml; do
      if [ -e "$work/own/$folder/$part" ]; then inside="$folder/$part"; elif [ -e "$folder/$part" ]; then inside="$folder/$part"; else continue; fi
      printf '%s\t%s\t%s\n' "$work/own" "$inside" "server test $server" \
        "$work/own" "$inside" "deploy app.war --undescribed --dry-run --to $server" >> "$cases"
    done
  done
done
javac -d "$work/classes" -cp "$program/lib/*" "$here"/Fuzz.java "$here"/FuzzCommands.java "$here"/Mutations.java
java -Xmx600m -cp "$work/classes:$program/lib/*" Fuzz \
  "$work/archives" "$work/descriptions" "$((${COUNT:-20000} / 2))" "${SEED:-1}" || failed=1
java -Xmx300m -Djolly.home="$program" -cp "$work/classes:$program/lib/*" FuzzCommands \
  "$cases" "$((${COUNT:-20000} / 2))" "${SEED:-1}" || failed=1
exit "${failed:-0}"
