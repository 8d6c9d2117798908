#!/bin/bash
# Packing, inspecting and starting against what a machine has anyway: ratios of whole processes, in
# interleaved rounds, medians of wall time. Argument: the folder of the built program. ROUNDS=5.
# Needs a JDK of version 17 with its tools, unzip and GNU time. The data are classes of that JDK.
set -e
program=$(cd "$1" && pwd)
rounds=${ROUNDS:-5}
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
export JOLLY_DATA=$work/data
jdk=$(dirname "$(dirname "$(readlink -f "$(command -v javac)")")")
jolly() { "$program/bin/jolly" "$@"; }

now() { date +%s%N; }
median() { sort -n | awk '{ all[NR] = $1 } END { print all[int((NR + 1) / 2)] }'; }

# against NAME AIM OURS THEIRS [BEFORE]: functions run in turn; BEFORE goes untimed before each.
against() {
  local name=$1 aim=$2 ours=$3 theirs=$4 before=${5:-true} round start
  rm -f "$work/ours" "$work/theirs"
  for round in $(seq "$rounds"); do
    for side in ours theirs; do
      "$before"
      start=$(now)
      "${!side}" >"$work/out" 2>&1 || { cat "$work/out"; exit 1; }
      echo $((($(now) - start) / 1000000)) >>"$work/$side"
    done
  done
  awk -v name="$name" -v aim="$aim" -v a="$(median <"$work/ours")" -v b="$(median <"$work/theirs")" \
    'BEGIN { printf "| %s | %d ms | %d ms | %.2f | %s |\n", name, a, b, a / b, aim }'
}

"$jdk/bin/jimage" extract --dir="$work/all" "$jdk/lib/modules"
find "$work/all" -name module-info.class -delete
mkdir -p "$work/app/classes" "$work/app/libs" "$work/app/web/WEB-INF"
for module in java.base java.desktop java.xml jdk.compiler; do
  cp -r "$work/all/$module/." "$work/app/classes/"
done
for module in jdk.localedata jdk.hotspot.agent jdk.javadoc java.management jdk.jdi jdk.jdeps \
  java.xml.crypto java.net.http jdk.jfr jdk.charsets jdk.internal.vm.ci jdk.jshell; do
  "$jdk/bin/jar" --create --file "$work/app/libs/$module-17.jar" -C "$work/all/$module" .
done
for module in jdk.localedata java.base java.desktop; do
  "$jdk/bin/jar" --create --file "$work/app/libs/more-$module-17.jar" -C "$work/all/$module" .
done
echo '<web-app xmlns="https://jakarta.ee/xml/ns/jakartaee" version="6.0"/>' >"$work/app/web/WEB-INF/web.xml"
printf '%s\n' 'name = "big"' 'version = "1"' '[pack]' 'classes = "classes"' 'web = "web"' \
  'libs = "libs"' '[app]' 'pack = "war"' '[pack.war]' '[pack.merged]' 'shape = "merged-jar"' \
  'classes = "small"' 'web = []' 'main = "Small"' >"$work/app/jolly.toml"
mkdir -p "$work/app/small" "$work/exploded/WEB-INF"
echo 'public class Small { public static void main(String[] a) {} }' >"$work/Small.java"
"$jdk/bin/javac" -d "$work/app/small" "$work/Small.java"
cp -r "$work/app/classes" "$work/exploded/WEB-INF/classes"
cp -r "$work/app/libs" "$work/exploded/WEB-INF/lib"
cp "$work/app/web/WEB-INF/web.xml" "$work/exploded/WEB-INF/"
cd "$work/app"
jolly --version >/dev/null
while [ -e "$program"/start/*.making ] || ! ls "$program"/start/*.jsa >/dev/null 2>&1; do sleep 0.2; done
echo "$(find . -type f | wc -l) files, $(du -sm --apparent-size . | cut -f1) MB"
echo "| what | jolly | compared with | ratio | aim |"
echo "|---|---|---|---|---|"

gone() { rm -rf packed "$work/theirs.war" "$work/union"; }
pack() { jolly pack; }
jar_create() {
  "$jdk/bin/jar" --create --date=2000-01-01T00:00:00Z --file "$work/theirs.war" -C "$work/exploded" .
}
against 'pack the application; `jar --create`' 0.55 pack jar_create gone

class=classes/java/lang/Character.class
change() {
  rm -f "$work/theirs.war"
  printf '%s' "$RANDOM$RANDOM" | dd of="$class" conv=notrunc bs=1 \
    seek=$(($(stat -c %s "$class") - 12)) status=none
}
jolly pack >/dev/null
against 'pack after one class changed; `jar --create`' 0.1 pack jar_create change

merged() { jolly pack merged; }
unpack_and_jar() {
  mkdir -p "$work/union"
  for library in libs/*.jar; do unzip -qo "$library" -d "$work/union"; done
  cp -r small/. "$work/union/"
  "$jdk/bin/jar" --create --file "$work/theirs.war" --main-class Small -C "$work/union" .
}
against 'merge the libraries; unpack and `jar --create`' 0.55 merged unpack_and_jar gone

"$jdk/bin/jar" --create --file "$work/big.war" -C "$work/exploded" .
inspect() { jolly inspect "$work/big.war"; }
test_zip() { unzip -tq "$work/big.war"; }
against 'inspect the WAR; `unzip -tq`' 1.0 inspect test_zip

version() { jolly --version; }
empty() { "$jdk/bin/java" -cp small Small; }
against '`--version`; an empty main' 2.7 version empty

mkdir -p "$work/nothing" && cd "$work/nothing"
cp -r "$program/samples/spokes/." .
jolly server new bench >/dev/null
cp -r "$work/app/small" .
nothing() { jolly check --on bench 2>&1 || [ $? = 4 ]; }
against 'nothing delivered, nothing to check: `check`; an empty main' 4 nothing empty

cd "$work/app"
echo
echo "| packed | peak memory |"
echo "|---|---|"
for megabytes in 10 100 1000; do
  rm -rf heap && mkdir -p heap/web
  for part in $(seq $((megabytes / 10))); do
    head -c 10000000 "$work/exploded/WEB-INF/lib/more-java.base-17.jar" >"heap/web/part-$part.data"
  done
  printf '%s\n' 'name = "heap"' 'version = "1"' '[pack]' 'web = "web"' >heap/jolly.toml
  (cd heap && /usr/bin/time -f %M -o "$work/peak" "$program/bin/jolly" pack >/dev/null)
  echo "| $megabytes MB | $(($(cat "$work/peak") / 1000)) MB |"
done
