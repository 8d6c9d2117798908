#!/usr/bin/env bash
# Runs real archives of every age, fetched with Maven: is what 'inspect' tells true, and does a
# delivery to a Tomcat 9 and a Tomcat 10.1 that log as they ship end as it must? corpus.tsv says
# what is true of each. Argument: the folder of the built program. CACHE may name a folder where
# archives stay. Prints a line for whatever is not right, and a sum; exit code 1 then.
set -u
program=$(cd "$1" && pwd)
here=$(cd "$(dirname "$0")" && pwd)
cache=${CACHE:-$(mktemp -d)}
work=$(mktemp -d)
export JOLLY_DATA="$work/data"
jolly() { "$program/bin/jolly" "$@"; }
mkdir -p "$cache"
cd "$work" || exit 1
fetch() { # coordinates of Maven -> file
  local group artifact version type classifier file
  IFS=: read -r group artifact version type classifier <<<"$1"
  file=$cache/$artifact-$version${classifier:+-$classifier}.$type
  [ -f "$file" ] || mvn -B -q org.apache.maven.plugins:maven-dependency-plugin:3.8.1:copy \
    -Dartifact="$1" -DoutputDirectory="$cache" >&2 || return 1
  echo "$file"
}
trap 'jolly server stop nine >/dev/null; jolly server stop ten >/dev/null; rm -rf "$work"' EXIT
for server in nine:9.0.117 ten:10.1.59; do
  name=${server%:*}
  home=$cache/tomcat-${server#*:}
  archive=$(fetch "org.apache.tomcat:tomcat:${server#*:}:tar.gz") || exit 1
  [ -d "$home" ] || { mkdir "$home" && tar -xzf "$archive" --strip-components=1 -C "$home"; }
  jolly server new $name --memory 512m --installation "$home" >/dev/null || exit 1
  cp "$home/conf/logging.properties" "servers/$name/conf/"
done

right=0 alarm=0 success=0 cause=0 told=0
verdict() { # server, file, expected, cause
  local out exit got
  out=$(jolly deploy "$2" --to "$1" --path /corpus --starts-within 2m 2>&1)
  exit=$?
  case $exit in
    0) got=delivered ;;
    4) got=blocked ;;
    5) got=taken-back ;;
    *) got="exit $exit" ;;
  esac
  if [ "$got" = "$3" ]; then
    if [ "$got" = taken-back ] && ! grep -qF -- "$4" <<<"$out"; then
      cause=$((cause + 1))
      echo "wrong cause: $2 on $1, expected '$4':"
      grep -A8 '^Failed' <<<"$out"
    else
      right=$((right + 1))
    fi
  elif [ "$3" = delivered ]; then
    alarm=$((alarm + 1))
    echo "false alarm: $2 on $1 is $got:"
    grep -E -A5 'blocker|^Failed' <<<"$out"
  else
    success=$((success + 1))
    echo "not $3 but $got: $2 on $1"
  fi
  [ $exit -ne 0 ] || jolly undeploy "$(sed -n 's/.*"application":"\([^"]*\)".*/\1/p' \
    "servers/$1/.jolly/standing.json" | head -1)" --from "$1" >/dev/null || echo "not undeployed: $2"
}
while IFS=$'\t' read -r coordinates kind level api nine ten why; do
  case $coordinates in '#'*) continue ;; esac
  file=$(fetch "$coordinates") || { echo "not fetched: $coordinates"; continue; }
  seen=$(jolly inspect "$file" --json)
  is() { grep -q "\"$1\" : $2[,]*\$" <<<"$seen"; }
  if is kind "\"$kind\"" && is highestLevel "$level"; then told=$((told + 1)); else
    echo "inspect: $file is not $kind of level $level"
  fi
  [ "$api" = - ] && continue
  grep -q "\"namespace\" : \"$api\"" <<<"$seen" || echo "inspect: $file is not made for $api"
  verdict nine "$file" "$nine" "$why"
  verdict ten "$file" "$ten" "$why"
done <"$here/corpus.tsv"
echo "inspect: $told right; deliveries: $right right, $alarm false alarms, $success not as they" \
  "must end, $cause with a wrong cause"
[ $((alarm + success + cause)) -eq 0 ]
