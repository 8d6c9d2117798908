#!/usr/bin/env bash
# Kills deliveries, undeploys, rollbacks and changes of the server itself with SIGKILL, at random moments and at chosen lines of the journal, on a Tomcat
# and on a service; then recovers, and looks whether it ended wholly old or wholly new: the release
# on record answers, there is one process, nothing half done is left, and after the last undeploy
# every path is as it was. Argument: the folder of the built program. KILLS (200), SEED and
# PORT, the first of four ports, may be given. Prints a line for each kill that did not end right, and a sum; exit code 1 then.
set -u
program=$(cd "$1" && pwd)
kills=${KILLS:-200}
RANDOM=${SEED:-1}
work=$(mktemp -d)
cp -r "$program/samples/spokes" "$work/spokes"
cd "$work/spokes" || exit 1
export JOLLY_DATA="$work/data" SPOKES_DB_PASSWORD=chain ROBIN_PASSWORD=tandem MIA_PASSWORD=freewheel
jolly() { "$program/bin/jolly" "$@"; }
trap 'jolly server stop bench >/dev/null; jolly server stop solo >/dev/null; rm -rf "$work"' EXIT
first=${PORT:-27801} # ports of its own, also while nothing listens there
jolly server new bench --http "$first" --admin $((first + 1)) >/dev/null || exit 1
jolly server new solo --kind service --http $((first + 2)) >/dev/null || exit 1
jolly deploy --to bench >/dev/null || exit 1
jolly deploy --to solo >/dev/null || exit 1
jolly undeploy spokes --from bench >/dev/null || exit 1
jolly undeploy spokes --from solo >/dev/null || exit 1

trace() {
  (cd "servers/$1" && find . \( -path ./.jolly -o -path ./logs -o -path ./log -o -path ./temp \
    -o -path ./work -o -path ./data -o -path ./state -o -path './programs/data' \) -prune -o \
    -printf '%p %y %m %u %g %l ' \( -type f -exec sha256sum {} \; -o -printf '\n' \) | sort)
}
port() { sed -n "/server.$1\]/,/^\[/s/^http = //p" servers.toml; }
recorded() { sed -n 's/.*"version":"\([^"]*\)".*/\1/p' "servers/$1/.jolly/standing.json"; }
answer() { wget -qO- "http://127.0.0.1:$(port "$1")/spokes/" 2>/dev/null | grep -o 'version [0-9.]*'; }
lines() { grep -c . "servers/$1/.jolly/journal.jsonl" 2>/dev/null || echo 0; }

for server in bench solo; do
  trace $server >"$work/$server.before"
done

release() { sed -i "s/$2/$1/g" jolly.toml; }
now=1.4.0 wrong=0 late=0 done=0
while [ "$done" -lt "$kills" ]; do
  done=$((done + 1))
  server=$([ $((RANDOM % 2)) -eq 0 ] && echo bench || echo solo)
  case $((RANDOM % 8)) in
    6 | 7)
      server=bench
      act="server change bench http=$([ "$(port bench)" = "$first" ] && echo $((first + 3)) || echo "$first")"
      ;;
    0) act="undeploy spokes --from $server" ;;
    1) next=1.6.0 ;;
    2) act="rollback --on $server" ;;
    *) next=$([ "$now" = 1.4.0 ] && echo 1.5.0 || echo 1.4.0) ;;
  esac
  if [ -n "${next:-}" ]; then
    release "$next" "$now"
    now=$next
    act="deploy --to $server"
  fi
  unset next
  (exec "$program/bin/jolly" $act) >/dev/null 2>&1 &
  pid=$!
  if [ $((RANDOM % 2)) -eq 0 ]; then
    sleep "$((RANDOM % 4)).$((RANDOM % 10))"
  else
    was=$(stat -c %i "servers/$server/.jolly/journal.jsonl" 2>/dev/null)
    at=$((1 + RANDOM % 22))
    while kill -0 $pid 2>/dev/null; do
      is=$(stat -c %i "servers/$server/.jolly/journal.jsonl" 2>/dev/null)
      [ "$is" != "$was" ] && [ "$(lines $server)" -ge "$at" ] && break
    done
  fi
  kill -KILL $pid 2>/dev/null
  wait $pid 2>/dev/null
  if [ $? -ne 137 ]; then
    late=$((late + 1)) # it had ended before: that was no kill, but what it left is looked at too
    done=$((done - 1))
  fi
  fault=""
  told=$(jolly recover --on $server 2>&1) || fault="recover: $told"
  version=$(recorded $server)
  if [ -n "$version" ]; then
    [ "$(answer $server)" = "version $version" ] || fault="$fault; $version is on record, and '$(answer $server)' answers"
  else
    [ -z "$(answer $server)" ] || fault="$fault; nothing is on record, and '$(answer $server)' answers"
  fi
  left=$(find "servers/$server" \( -name '*.part' -o -name lock -o -name backup \) -path '*' 2>/dev/null)
  [ -z "$left" ] || fault="$fault; left: $left"
  count=$(pgrep -fc -- "(-Dcatalina.base=|keeper.Keeper )$work/spokes/servers/$server( |\$)")
  [ "$count" -le 1 ] || fault="$fault; $count processes"
  if [ -n "$fault" ]; then
    wrong=$((wrong + 1))
    echo "kill $done, $act at ${at:-random}: $fault"
  fi
  unset at
done
for server in bench solo; do
  jolly undeploy spokes --from $server >/dev/null 2>&1
  trace $server | diff "$work/$server.before" - >"$work/diff" || {
    wrong=$((wrong + 1))
    echo "$server is not as it was:"
    cat "$work/diff"
  }
done
echo "$kills kills (and $late runs that had ended before): $wrong did not end right"
[ "$wrong" -eq 0 ]
