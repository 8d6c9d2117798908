#!/bin/sh
# Becomes a machine of its own that shares this one's files: systemd as process 1, with its journal,
# and no unit but those in the folder "units" of the one argument. It ends when it is killed.
cat > "$1/units/default.target" <<'END'
[Unit]
DefaultDependencies=no
Wants=systemd-journald.service
END
# In a control group of its own, so that its systemd takes no process of this machine for its own.
for groups in /sys/fs/cgroup/systemd /sys/fs/cgroup/unified /sys/fs/cgroup; do
  if [ -e "$groups/cgroup.procs" ]; then
    mkdir "$groups/machine-$$" && echo $$ >"$groups/machine-$$/cgroup.procs" || exit 1
  fi
done
exec unshare --fork --kill-child --pid --mount --mount-proc --ipc --uts sh -c '
  mount --make-rprivate / && mount -t tmpfs tmpfs /run && mount -t tmpfs tmpfs /var/log || exit 1
  mkdir -p /run/systemd
  exec env -i PATH=/usr/bin:/bin container=lab SYSTEMD_UNIT_PATH="$0/units:/lib/systemd/system" \
    /lib/systemd/systemd --system --unit=default.target --log-target=console --show-status=false' "$1"
