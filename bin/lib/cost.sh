# How much processor time a command and everything that it starts takes, and that nothing of it is left. Sourced by bin/test.

# Everything that is started from here on carries this mark in its environment, also what leaves its parent.
mark=YARROWMARK_TEST_RUN=$$-$(date +%s)
export "${mark?}"
cost_group='' cost_home='' cost_from='' cost_kind='' cost_began=$SECONDS cost_speed=''

# A fixed calculation on one processor, in ms of processor time: how fast this machine is just now.
fixed_calculation() {
  node -e '
    const once = () => {
      const from = process.cpuUsage();
      let a = 1;
      for (let i = 0; i < 150_000_000; i++) a = (Math.imul(a, 48271) + i) | 0;
      const { user } = process.cpuUsage(from);
      return a === 0 ? 0 : user / 1000;
    };
    console.log(Math.round(Math.min(once(), once(), once())));'
}

# What the processors of the whole machine did since it was started, in ms, other programs included.
machine_ms() { awk -v hz="$(getconf CLK_TCK)" '/^cpu / { printf "%d", ($2 + $3 + $4 + $7 + $8) * 1000 / hz }' /proc/stat; }

# cost_begin : from here on everything counts.
cost_begin() {
  local line kind at path
  cost_speed=$(fixed_calculation)
  # A control group counts also what is killed. Its second version has the time in every group, its first in cpuacct.
  while IFS=: read -r line kind path; do
    case $line:$kind in
      0:) at=$(awk '$3 == "cgroup2" { print $2; exit }' /proc/mounts) ;;
      *:*cpuacct*) at=$(awk '$3 == "cgroup" && $4 ~ /cpuacct/ { print $2; exit }' /proc/mounts) ;;
      *) continue ;;
    esac
    [ -n "$at" ] || continue
    [ -d "$at$path" ] || path=''
    cost_home=$at${path%/}
    if mkdir "$cost_home/yarrowmark-test-$$" 2>/dev/null; then
      cost_group=$cost_home/yarrowmark-test-$$
      if { echo "$$" >"$cost_group/cgroup.procs"; } 2>/dev/null && [ -n "$(group_ms)" ]; then
        cost_kind=group
        cost_from=$(group_ms)
        return
      fi
      cost_leave
    fi
  done </proc/self/cgroup
  cost_kind=machine
  cost_from=$(machine_ms)
}

group_ms() {
  if [ -r "$cost_group/cpuacct.usage" ]; then
    awk '{ printf "%d", $1 / 1e6 }' "$cost_group/cpuacct.usage"
  else
    awk '$1 == "usage_usec" { printf "%d", $2 / 1000 }' "$cost_group/cpu.stat" 2>/dev/null
  fi
}

# cost_say : what it came to, also as a ratio to the fixed calculation, which takes longer on a slower machine.
cost_say() {
  local took=$((SECONDS - cost_began)) ms after of
  if [ "$cost_kind" = group ]; then ms=$(($(group_ms) - cost_from)) of='all that it started'; else ms=$(($(machine_ms) - cost_from)) of='the whole machine, other programs included'; fi
  after=$(fixed_calculation)
  say "$(awk -v took="$took" -v ms="$ms" -v of="$of" -v before="$cost_speed" -v after="$after" -v busy="$(cut -d ' ' -f 1-3 /proc/loadavg)" 'BEGIN {
    printf "%d min %d s by the clock, %.1f processor minutes (%s), load %s.\n", took / 60, took % 60, ms / 60000, of, busy
    printf "A fixed calculation took %d ms before and %d after; the whole is %d times their mean.", before, after, ms / ((before + after) / 2)
  }')"
}

# What carries the mark and is not this command: "PID NAME" lines.
what_is_left() {
  local file pid
  for file in /proc/[0-9]*/environ; do
    pid=${file#/proc/}
    pid=${pid%/environ}
    [ "$pid" != "$$" ] && [ "$pid" != "$BASHPID" ] || continue
    if tr '\0' '\n' <"$file" 2>/dev/null | grep -xF "$mark" >/dev/null; then
      # One that is being read for this very list has the mark, too.
      [ "$(ps -o ppid= -p "$pid" 2>/dev/null | tr -d ' ')" = "$BASHPID" ] || printf '%s %s\n' "$pid" "$(cat "/proc/$pid/comm" 2>/dev/null)"
    fi
  done 2>/dev/null
}

# end_what_is_left : programs that are ending get the time for it; what still runs then is ended, and named.
end_what_is_left() {
  local left tries
  for tries in $(seq 1 40); do
    left=$(what_is_left)
    [ -n "$left" ] || return 0
    sleep 0.5
  done
  say "Left running, and ended now: $(awk '{ print $2 }' <<<"$left" | sort | uniq -c | awk '{ printf "%s%s × %s", sep, $1, $2; sep = ", " }')"
  awk '{ print $1 }' <<<"$left" | xargs -r kill -KILL 2>/dev/null || true
}

cost_leave() {
  [ -n "$cost_group" ] || return 0
  echo "$$" >"$cost_home/cgroup.procs" 2>/dev/null || true
  rmdir "$cost_group" 2>/dev/null || true
  cost_group=''
}
