#!/bin/sh
# Every path below a folder with type, mode, owner, group and link target, and every file's digest.
# Arguments: the folder, then names directly inside that are not looked into.
cd "$1" || exit 1
shift
set -f
prune=""
for name in "$@"; do
  prune="$prune -path ./$name -prune -o"
done
find . $prune -printf '%y %m %U %G %l %P\n' | sort
find . $prune -type f -print0 | sort -z | xargs -0 -r sha256sum
