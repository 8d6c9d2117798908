#!/bin/sh
# Starts the program in this folder. JAVA_HOME chooses the Java, JAVA_OPTS its options.
here=$0
while [ -h "$here" ]; do
  link=$(readlink "$here")
  case $link in /*) here=$link ;; *) here=$(dirname "$here")/$link ;; esac
done
home=$(cd "$(dirname "$here")" && pwd -P) || exit 1
java=java
[ -n "$JAVA_HOME" ] && java=$JAVA_HOME/bin/java
command -v "$java" >/dev/null 2>&1 || {
  echo "$(basename "$0"): no Java found. Install one, or set JAVA_HOME" >&2
  exit 1
}
exec "$java" $JAVA_OPTS -jar "$home/@jar@" "$@"
