#!/usr/bin/env bash
# What distance costs: commands for a server behind a real SSH server and a long line, in seconds,
# round trips and bytes. The line is a relay that delays each way, and says at SIGUSR1 what passed:
# "..., bytes to target N, ..., turns N".
# Usage: bench/distance.sh PROGRAM_FOLDER RELAY    (DELAY_MS=25; needs OpenSSH's server, a JDK 17,
# and RELAY, called as 'RELAY LISTEN_PORT TARGET_PORT --delay-ms N')
set -euo pipefail
program=$(cd "$1" && pwd)
relay=$(realpath "$2")
stage=$(mktemp -d)
port=$((20000 + RANDOM % 10000))
jolly=$program/bin/jolly
cd "$stage"
export JOLLY_DATA="$stage/data"
trap '"$jolly" server stop far >/dev/null 2>&1 || :; kill $(cat sshd.pid) $link; rm -rf "$stage"' EXIT

ssh-keygen -q -t ed25519 -N "" -f host
ssh-keygen -q -t ed25519 -N "" -f mine
mkdir -p /run/sshd home
cat >sshd_config <<CONF
Port $port
ListenAddress 127.0.0.1
HostKey $stage/host
PidFile $stage/sshd.pid
AuthorizedKeysFile $stage/mine.pub
UsePAM no
StrictModes no
SetEnv HOME=$stage/home
CONF
/usr/sbin/sshd -f "$stage/sshd_config"
"$relay" $((port + 1)) "$port" --delay-ms "${DELAY_MS:-25}" 2>turns &
link=$!
until (exec 3<>"/dev/tcp/127.0.0.1/$((port + 1))") 2>/dev/null; do
  kill -0 "$link"
  sleep 0.1
done
cat >ssh_config <<CONF
Host far
  HostName 127.0.0.1
  Port $((port + 1))
  IdentityFile $stage/mine
  IdentitiesOnly yes
  UserKnownHostsFile $stage/known_hosts
CONF
mkdir tomcat
tar -xzf "$program"/servers/*.tar.gz -C tomcat --strip-components=1
sed -i "s/\"8080\"/\"$((port + 2))\"/; s/\"8005\"/\"-1\"/" tomcat/conf/server.xml
cat >servers.toml <<TOML
[host.far]
ssh = "far"
config = "ssh_config"

[server.far]
host = "far"
installation = "$stage/tomcat"
folder = "$stage/tomcat"
http = $((port + 2))
TOML
mkdir -p page/WEB-INF
echo ring >page/index.html
jar --create --file bell.war -C page .
"$jolly" host trust far --yes >/dev/null

told() { # what
  grep -o "$1 [0-9]*" turns | tail -n 1 | grep -o '[0-9]*$'
}
passed() {
  kill -USR1 "$link"
  sleep 0.2
  echo "$(told turns) $(told 'to target')"
}
far() {
  local turns bytes begin took now
  read -r turns bytes <<<"$(passed)"
  begin=$(date +%s%N)
  "$jolly" "${@:2}" >/dev/null 2>&1
  took=$((($(date +%s%N) - begin) / 1000000))
  read -r -a now <<<"$(passed)"
  echo "$1	$took ms	$(((now[0] - turns) / 2)) round trips	$((now[1] - bytes)) bytes sent"
}
far "connect only" host list
far "server list" server list
far "first delivery" deploy bell.war --undescribed --to far
far "unchanged delivery" deploy bell.war --undescribed --to far
far "its checks" check bell --on far
far "undeploy" undeploy bell --from far

mkdir -p page/WEB-INF/classes
for n in $(seq 300); do
  head -c 100000 /dev/urandom >"page/WEB-INF/classes/part$n"
done
jar --create --file big.war -C page .
far "30 MB for the first time" deploy big.war --undescribed --to far
echo changed >page/WEB-INF/classes/part77
jar --create --file big.war -C page .
far "one class of it changed" deploy big.war --undescribed --to far
