# Says what a machine is, a line for each fact: a word, a tab and its value.
say() { printf '%s\t%s\n' "$1" "$2"; }
say time "$(date +%s)"
say user "$(id -un)"
say home "$HOME"
[ -w "$HOME" ] || say home-read-only "$HOME"
[ ! -r /etc/os-release ] || say system "$(. /etc/os-release && printf %s "$PRETTY_NAME")"
say kernel "$(uname -sm)"
say cores "$(grep -c ^processor /proc/cpuinfo)"
say memory "$(sed -n 's/^MemTotal: *\([0-9]*\).*/\1/p' /proc/meminfo)"
say memory-free "$(sed -n 's/^MemAvailable: *\([0-9]*\).*/\1/p' /proc/meminfo)"
for folder in "$HOME" /srv /opt; do
  [ ! -d "$folder" ] || say disk "$folder $(df -Pk "$folder" | tail -n 1 | tr -s ' ' | cut -d ' ' -f 4,6)"
done
for tool in flock setsid sha256sum stat sync timeout; do
  command -v "$tool" >/dev/null || say missing "$tool"
done
if ! cat /proc/self/stat >/dev/null 2>&1; then
  say unmounted yes
elif ! cat /proc/1/stat >/dev/null 2>&1; then
  say hidden yes
fi
for java in "$JAVA_HOME/bin/java" "$(command -v java)" /usr/lib/jvm/*/bin/java /opt/*/bin/java; do
  [ ! -x "$java" ] || readlink -f "$java"
done | sort -u | while IFS= read -r java; do
  home=${java%/bin/java}
  home=${home%/jre}
  version=$(sed -n 's/^JAVA_VERSION="\(.*\)"$/\1/p' "$home/release" 2>/dev/null)
  [ -n "$version" ] || version=$("$java" -version 2>&1 | sed -n '1s/.*"\(.*\)".*/\1/p')
  say java "$version $home"
done
if [ -d /run/systemd/system ]; then
  say systemd yes
  [ ! -e "/var/lib/systemd/linger/$(id -un)" ] || say lingers yes
  grep -qs '^ *KillUserProcesses *= *yes' /etc/systemd/logind.conf && say killed yes
fi
say end yes
