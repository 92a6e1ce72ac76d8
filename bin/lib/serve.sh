# Starts MariaDB and the server, and keeps them until Ctrl-C. Sourced by bin/demo and bin/start.
# shellcheck source=records.sh
source "$(dirname "${BASH_SOURCE[0]}")/records.sh"

# keep_backups NAME N : makes a backup whenever the newest is a day old, and keeps the last N. What became of the last one is
# in backup.state, which the server tells its owners.
keep_backups() {
  local name=$1 keep=$2 newest said pause=''
  trap '[ -z "$pause" ] || kill "$pause" 2>/dev/null; exit 0' TERM INT HUP
  mkdir -p "$var/backups"
  while :; do
    newest=$(find "$var/backups" -name 'yarrowmark-*.tar.gz' -printf '%T@\n' | sort -n | tail -n 1)
    if [ -z "$newest" ] || [ $(($(date +%s) - ${newest%.*})) -ge 86400 ]; then
      if said=$(YARROWMARK_VAR=$(dirname "$var") "$root/bin/backup" "$var/backups/yarrowmark-$(date -u +%Y-%m-%dT%H%M%SZ).tar.gz" "$name" 2>&1); then
        # The oldest go only once the new one is there.
        find "$var/backups" -name 'yarrowmark-*.tar.gz' -printf '%T@ %p\n' | sort -rn | tail -n "+$((keep + 1))" | cut -d ' ' -f 2- | xargs -r -d '\n' rm -f
      else
        printf 'failed %s %s\n' "$(date +%s)" "$(tail -n 1 <<<"$said" | cut -c 1-300)" >"$var/backup.state"
        newest=failed
      fi
    fi
    [ "$newest" = failed ] || printf 'ok %s\n' "$(find "$var/backups" -name 'yarrowmark-*.tar.gz' -printf '%T@\n' | sort -n | tail -n 1 | cut -d . -f 1)" >"$var/backup.state"
    sleep 600 &
    pause=$!
    wait "$pause"
  done
}

# keep_before_update NAME : records of an older form are kept in a file before the server brings them to its own.
keep_before_update() (
  trap - EXIT
  trap 'rm -f ${access:+"$access"}' EXIT
  reach "$1"
  local form newest
  # A database without that table has no records yet.
  form=$(ask "$access" 'select max(cast(version as unsigned)) from flyway_schema_history where success' 2>/dev/null) || return 0
  newest=$(newest_form)
  [[ $form =~ ^[0-9]+$ ]] && [ "$form" -lt "$newest" ] || return 0
  say "These records are of form $form, and this Yarrowmark has form $newest: they are kept in a file first"
  "$root/bin/backup" "$var/backups/before-form-$newest-$(date -u +%Y-%m-%dT%H%M%SZ).tar.gz" "$1"
)

# serve NAME [--port N] [--no-build] [--lan] [--backups N] : NAME is the shelf's directory below var/.
serve() {
  local name=$1 wanted='' build=yes lan=no keep=0
  shift
  while [ $# -gt 0 ]; do
    case $1 in
      --port) [[ ${2:-} =~ ^[0-9]+$ ]] || fail "--port needs a number"; wanted=$2; shift 2 ;;
      --no-build) build=no; shift ;;
      --lan)
        [ "$name" = start ] || fail "the demo has a sign-in that everybody knows, so it stays on this machine; use bin/start --lan"
        lan=yes; shift ;;
      --backups)
        [[ ${2:-} =~ ^[1-9][0-9]{0,3}$ ]] || fail "--backups needs how many of them are kept, 1 or more"
        keep=$2; shift 2 ;;
      *) fail "unknown option $1; see bin/$name --help" ;;
    esac
  done
  need_tools
  # Records on a database of one's own are asked for by all three.
  local elsewhere=${YARROWMARK_DB_URL:-}
  if [ -n "$elsewhere" ]; then
    [[ $elsewhere =~ ^jdbc:mariadb://([^/:]+|\[[0-9a-fA-F:]+\])(:[0-9]+)?/[A-Za-z0-9_]+$ ]] \
      || fail "YARROWMARK_DB_URL is jdbc:mariadb://HOST:PORT/NAME, and not $elsewhere"
    [ -n "${YARROWMARK_DB_USER:-}" ] && [ -n "${YARROWMARK_DB_PASSWORD:-}" ] || fail "with YARROWMARK_DB_URL go YARROWMARK_DB_USER and YARROWMARK_DB_PASSWORD"
    [[ ! ${YARROWMARK_HEAP:-1g} =~ [^0-9kmgKMG] ]] || fail "YARROWMARK_HEAP is a size such as 800m or 2g"
  else
    need_packages mariadbd=mariadb-server
  fi
  [ "$build" = no ] || { build_program; build_runner_folder; }
  local jar=$root/server/target/yarrowmark.jar
  [ -f "$jar" ] || fail "the program is not built; start without --no-build"

  # Not local: the exit trap, which stops everything, may run when this function is already left.
  # Records, passwords and sessions are nobody else's on this machine, also those that an older version left open.
  var=${YARROWMARK_VAR:-$root/var}/$name
  mkdir -p "$var"
  var=$(cd "$var" && pwd)
  chmod 700 "$var"
  # Half of a start is loading classes. The first one keeps them when it ends, and the next ones map them.
  local program
  unpack_program program
  # Held by the server as well, as long as it runs.
  exec 6>"$program/used"
  flock -s 6
  umask 077
  kept=$program/classes.jsa keeping=''
  local java
  program_java java "$program"
  if [ ! -f "$kept" ] && [ "${YARROWMARK_KEEP_CLASSES:-yes}" = yes ] && [ -z "${YARROWMARK_SAMPLES:-}" ]; then
    keeping=$program/classes.$$
    java+=(-XX:ArchiveClassesAtExit="$keeping")
  fi
  # Java takes a quarter of the machine's memory by itself.
  [ -z "${YARROWMARK_HEAP:-}" ] || java+=("-Xmx$YARROWMARK_HEAP")
  # What computers join with. Beside the program in an image, among what was built in a checkout.
  local runner
  for runner in "$root/runner/target/yarrow-runner.jar" "$root/yarrow-runner.jar"; do
    [ ! -f "$runner" ] || java+=("-Dyarrowmark.runner=$runner")
  done
  java+=(-jar "$program/yarrowmark.jar")
  # Before anything here is touched: these files are the first one's.
  exec 7>"$var/lock"
  flock -n 7 || fail "Yarrowmark is running in $var already. Stop it first, or set YARROWMARK_VAR to another directory"
  # The database ends when the pipe to its standard input closes, however this command ends.
  pipe=$var/keep database='' server=''
  local line
  rm -f "$pipe" "$var/database.ready"
  if [ -z "$elsewhere" ]; then
    mkfifo "$pipe"
    "$root/bin/lib/database" "$var/mariadb" <"$pipe" >"$var/database.ready" 7>&- &
    database=$!
    exec 8>"$pipe"
  else
    printf '%s\t%s\t%s\n' "$elsewhere" "$YARROWMARK_DB_USER" "$YARROWMARK_DB_PASSWORD" >"$var/database.ready"
  fi
  backups=''
  stop_all() {
    trap - EXIT INT TERM HUP
    [ -z "$backups" ] || kill "$backups" 2>/dev/null || true
    # Whoever read what is said may be gone, and that must not keep anything from being stopped.
    trap '' PIPE
    if [ -n "$server" ]; then
      [ -z "$keeping" ] || say "Stopping, and keeping what makes the next start quicker" 2>/dev/null || true
      kill "$server" 2>/dev/null || true
      wait "$server" 2>/dev/null || true
      if [ -n "$keeping" ] && [ -s "$keeping" ]; then mv "$keeping" "$kept"; fi
    fi
    [ -z "$keeping" ] || rm -f "$keeping"
    if [ -n "$database" ]; then
      exec 8>&-
      wait "$database" 2>/dev/null || true
    fi
    rm -f "$pipe" "$var/database.ready" "$var/server.pid" "$var/server.address"
  }
  trap 'stop_all' EXIT
  trap 'exit 0' INT TERM HUP
  [ -n "$elsewhere" ] || say "Starting the database"
  while [ ! -s "$var/database.ready" ]; do
    kill -0 "$database" 2>/dev/null || { database=''; fail "the database ended; its message is above"; }
    sleep 0.1
  done
  line=$(cat "$var/database.ready")
  YARROWMARK_VAR=$(dirname "$var") keep_before_update "$name" 6>&- 7>&- 8>&- || fail "the records could not be kept before their update, so it was not begun; what was wrong stands above"

  local port plain
  if [ -z "$wanted" ]; then
    if [ $lan = yes ]; then wanted=8443; else wanted=8080; fi
  fi
  take_port port "$wanted"
  [ "$port" = "$wanted" ] || say "Port $wanted is taken, so this is port $port."
  if [ $lan = yes ]; then
    take_port plain 8080
    export YARROWMARK_LAN=true YARROWMARK_HTTP_PORT=$plain
  fi
  export YARROWMARK_DB_URL YARROWMARK_DB_USER YARROWMARK_DB_PASSWORD YARROWMARK_PORT=$port YARROWMARK_VAR=$var
  IFS=$'\t' read -r YARROWMARK_DB_URL YARROWMARK_DB_USER YARROWMARK_DB_PASSWORD <<<"$line"
  if [ -n "${YARROWMARK_SAMPLES:-}" ]; then
    # Looks at the samples and ends; what it found is all that it prints.
    "${java[@]}" 2>&1 >"$var/samples.out" | tee "$var/samples.log" >&2 &
    server=$!
    wait "$server" || true
    server=''
    grep -E 'samples checked|made anew' "$var/samples.out" || fail "the samples could not be looked at; see $var/samples.out"
    ! grep -qE 'missing|could not' "$var/samples.out" || grep -q 'They were made anew' "$var/samples.out"
    return
  fi
  say "Starting the server"
  # It ends with this command, however that ends.
  setpriv --pdeathsig TERM "${java[@]}" >"$var/server.log" 2>&1 7>&- 8>&- &
  server=$!
  echo "$server" >"$var/server.pid"
  local worked='' before='' since=$SECONDS told=$SECONDS
  while :; do
    # The plain door answers that the other one is ready.
    if (exec 3<>"/dev/tcp/127.0.0.1/${plain:-$port}" && printf 'GET /api/access HTTP/1.0\r\nHost: 127.0.0.1\r\n\r\n' >&3 && head -n 1 <&3 | grep -Eq ' (200|308)') 2>/dev/null; then
      say ""
      if [ $lan = yes ]; then echo "https://127.0.0.1:$port"; else echo "http://127.0.0.1:$port"; fi >"$var/server.address"
      if [ $lan = yes ]; then
        say "Yarrowmark is at https://127.0.0.1:$port/ and on the network at"
        for line in $(hostname -I 2>/dev/null); do
          case $line in *:*) ;; *) say "  https://$line:$port/   (http://$line:$plain/ leads there)" ;; esac
        done
        say "Its certificate is this machine's own, so a browser asks the first time. The bench shows its fingerprint to compare."
        say "Your own certificate: $var/certificate/own-certificate.pem and own-key.pem"
      else
        say "Yarrowmark is at http://127.0.0.1:$port/"
      fi
      [ "$name" = demo ] && say "Demo sign-in: name wren, password saltmarsh-demo"
      say "Ctrl-C stops it. Its records are in $var"
      rm -f "$var/backup.state"
      if [ "$keep" -gt 0 ]; then
        say "A backup a day is kept in $var/backups, the last $keep of them."
        keep_backups "$name" "$keep" 6>&- 7>&- 8>&- </dev/null &
        backups=$!
      fi
      local code=0
      # One elsewhere may go away and come back.
      wait -n "$server" ${database:+"$database"} || code=$?
      # Without its database a server would stand there and say that the records are out of reach, for ever.
      [ -n "$database" ] && kill -0 "$server" 2>/dev/null && { database=''; fail "the database ended, and with it this; its message is above"; }
      server=''
      [ "$code" = 0 ] || fail "the server ended; see $var/server.log"
      return
    fi
    kill -0 "$server" 2>/dev/null || { server=''; tail -n 20 "$var/server.log" >&2; fail "the server did not start; see $var/server.log"; }
    # On a busy machine it may take minutes. As long as it works, it is waited for.
    worked=$(awk '{ print $14 + $15 }' "/proc/$server/stat" 2>/dev/null || true)
    if [ "$worked" != "$before" ]; then before=$worked since=$SECONDS; fi
    [ $((SECONDS - since)) -lt 120 ] || fail "the server has done nothing for two minutes; see $var/server.log"
    if [ $((SECONDS - told)) -ge 20 ]; then
      told=$SECONDS
      say "Still starting; the server said last: $(tail -n 1 "$var/server.log" | cut -c1-150)"
    fi
    sleep 0.1
  done
}
