# Answers requests on standard input, one after the other, until it ends. A request is a line with
# the length of a script, the length of its input and a mark, followed by both; the word "after"
# behind the mark passes it over when the one before it failed. The answer is what the script
# prints, a line with the mark, its exit code and the length of its errors, and these.
exec 4>&1
if : | dd iflag=fullblock count=0 2>/dev/null; then
  take() {
    [ "$1" -lt 65536 ] || dd bs=65536 count=$(($1 / 65536)) iflag=fullblock 2>/dev/null
    [ $(($1 % 65536)) -eq 0 ] || dd bs=$(($1 % 65536)) count=1 iflag=fullblock 2>/dev/null
  }
else
  take() { [ "$1" -eq 0 ] || dd bs=1 count="$1" 2>/dev/null; }
fi
if mv --help 2>&1 | grep -q -e '-T'; then over=-T; else over=; fi

# What changes files, shared by the scripts.
durable() { sync "$@"; }
grant() { # owner:group mode path
  [ "$(stat -c %U:%G "$3")" = "$1" ] || chown "$1" "$3" && chmod "$2" "$3"
}
replace() { # from to
  if [ -z "$over" ] && [ -d "$2" ]; then echo "it is a folder" >&2; return 1; fi
  mv -f $over "$1" "$2" && durable "${2%/*}/"
}

# What a process is: its parent and its start, from stat (proc(5)).
born() {
  IFS= read -r stat 2>/dev/null <"/proc/$1/stat" || return 1
  pid=$1
  set -- ${stat##*) }
  parent=$2 start=${20}
}
# Ends a shell that answered before, and what it is still doing.
leave() { # pid start
  born "$1" && [ "$start" = "$2" ] || return 0
  all=" $1 " more=1
  while [ "$more" ]; do
    more=
    for file in /proc/[0-9]*; do
      born "${file#/proc/}" || continue
      case $all in
        *" $pid "*) ;;
        *" $parent "*) all="$all$pid " more=1 ;;
      esac
    done
  done
  kill -9 $all 2>/dev/null
  :
}

born "$$" || start=
printf '%s %s\n' "$$" "$start"
code=0
while IFS=' ' read -r script input mark after; do
  text=$(take "$script"; printf .)
  text=${text%.}
  if [ "$after" ] && [ "$code" -ne 0 ]; then text='exit 1'; fi
  errors=$({ take "$input" | { (eval "$text") 4>&-; code=$?; cat >/dev/null; exit $code; }; } 2>&1 >&4
    printf .%s $?)
  code=${errors##*.}
  errors=${errors%.*}
  printf '\n%s %s %s\n%s' "$mark" "$code" "${#errors}" "$errors"
done
