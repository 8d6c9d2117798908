#!/bin/sh
# Becomes a service manager for the units of one home: systemd as a user's instance that sees no
# other unit of this machine. Arguments: an empty folder, the home. SIGTERM ends it.
mkdir -p "$1/units" "$1/runtime"
for unit in basic default exit paths shutdown sockets timers; do
  cp "/usr/lib/systemd/user/$unit.target" "$1/units"
done
cp /usr/lib/systemd/user/systemd-exit.service "$1/units"
exec unshare --mount sh -c '
  mount --make-rprivate / && mount -t tmpfs tmpfs /run && mkdir -p /run/systemd/system || exit 1
  exec env -i PATH=/usr/bin:/bin HOME="$1" XDG_RUNTIME_DIR="$0/runtime" \
    SYSTEMD_LOG_TARGET=console SYSTEMD_UNIT_PATH="$0/units:$1/.config/systemd/user" \
    /lib/systemd/systemd --user' "$1" "$2"
