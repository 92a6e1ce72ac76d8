# Starts MariaDB and the server, and keeps them until Ctrl-C. Sourced by bin/demo and bin/start.
# shellcheck source=common.sh
source "$(dirname "${BASH_SOURCE[0]}")/common.sh"

# serve NAME [--port N] [--no-build] [--lan] : NAME is the shelf's directory below var/.
serve() {
  local name=$1 wanted='' build=yes lan=no
  shift
  while [ $# -gt 0 ]; do
    case $1 in
      --port) [[ ${2:-} =~ ^[0-9]+$ ]] || fail "--port needs a number"; wanted=$2; shift 2 ;;
      --no-build) build=no; shift ;;
      --lan)
        [ "$name" = start ] || fail "the demo has a sign-in that everybody knows, so it stays on this machine; use bin/start --lan"
        lan=yes; shift ;;
      -h|--help) say "usage: bin/$name [--port N] [--no-build]$([ "$name" = demo ] || echo ' [--lan]')"; exit 0 ;;
      *) fail "unknown option $1; see bin/$name --help" ;;
    esac
  done
  need_tools
  need_packages mariadbd=mariadb-server
  [ "$build" = no ] || build_program
  local jar=$root/server/target/yarrowmark.jar
  [ -f "$jar" ] || fail "the program is not built; start without --no-build"

  # Not local: the exit trap, which stops everything, may run when this function is already left.
  var=${YARROWMARK_VAR:-$root/var}/$name
  mkdir -p "$var"
  var=$(cd "$var" && pwd)
  # Half of a start is loading classes. The first one keeps them when it ends, and the next ones map them.
  local program
  unpack_program program
  # Held by the server as well, as long as it runs.
  exec 6>"$program/used"
  flock -s 6
  kept=$program/classes.jsa keeping=''
  local java=(java -XX:+UseSerialGC -Xshare:auto)
  if [ -f "$kept" ]; then
    java+=(-XX:SharedArchiveFile="$kept")
  elif [ "${YARROWMARK_KEEP_CLASSES:-yes}" = yes ] && [ -z "${YARROWMARK_SAMPLES:-}" ]; then
    keeping=$program/classes.$$
    java+=(-XX:ArchiveClassesAtExit="$keeping")
  fi
  java+=(-jar "$program/yarrowmark.jar")
  # Before anything here is touched: these files are the first one's.
  exec 7>"$var/lock"
  flock -n 7 || fail "Yarrowmark is running in $var already. Stop it first, or set YARROWMARK_VAR to another directory"
  # The database ends when the pipe to its standard input closes, however this command ends.
  pipe=$var/keep database='' server=''
  local line
  rm -f "$pipe" "$var/database.ready"
  mkfifo "$pipe"
  "$root/bin/lib/database" "$var/mariadb" <"$pipe" >"$var/database.ready" 7>&- &
  database=$!
  exec 8>"$pipe"
  stop_all() {
    trap - EXIT INT TERM HUP
    # Whoever read what is said may be gone, and that must not keep anything from being stopped.
    trap '' PIPE
    if [ -n "$server" ]; then
      [ -z "$keeping" ] || say "Stopping, and keeping what makes the next start quicker" 2>/dev/null || true
      kill "$server" 2>/dev/null || true
      wait "$server" 2>/dev/null || true
      if [ -n "$keeping" ] && [ -s "$keeping" ]; then mv "$keeping" "$kept"; fi
    fi
    [ -z "$keeping" ] || rm -f "$keeping"
    exec 8>&-
    wait "$database" 2>/dev/null || true
    rm -f "$pipe" "$var/database.ready" "$var/server.pid"
  }
  trap 'stop_all' EXIT
  trap 'exit 0' INT TERM HUP
  say "Starting the database"
  while [ ! -s "$var/database.ready" ]; do
    kill -0 "$database" 2>/dev/null || { database=''; fail "the database ended; its message is above"; }
    sleep 0.1
  done
  line=$(cat "$var/database.ready")

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
      local code=0
      wait -n "$server" "$database" || code=$?
      # Without its database a server would stand there and say that the records are out of reach, for ever.
      kill -0 "$server" 2>/dev/null && { database=''; fail "the database ended, and with it this; its message is above"; }
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
