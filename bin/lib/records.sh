# Reaching the records of a shelf that is running. Sourced by bin/backup, bin/export and bin/people; and making
# new ones in an empty place, by bin/restore and bin/import.
# shellcheck source=common.sh
source "$(dirname "${BASH_SOURCE[0]}")/common.sh"

# newest_form : of the records that this program knows.
newest_form() { find "$root/server/src/main/resources/db/migration" -name 'V*.sql' | sed -E 's/.*V([0-9]+)__.*/\1/' | sort -n | tail -n 1; }

# reach NAME : sets var and database, and makes the file $access with which the database's own tools connect; the password is on no
# command line, where everybody on the machine could read it.
reach() {
  local name=$1 line url user password
  umask 077
  case $name in start|demo) ;; *) fail "there are the shelves start and demo, not $name" ;; esac
  var=${YARROWMARK_VAR:-$root/var}/$name
  [ -d "$var" ] || fail "there is no shelf in $var yet"
  var=$(cd "$var" && pwd)
  [ -s "$var/database.ready" ] || fail "the shelf in $var is not running; start it with bin/$name first"
  line=$(cat "$var/database.ready")
  IFS=$'\t' read -r url user password <<<"$line"
  access=$(mktemp "${TMPDIR:-/tmp}/yarrowmark-access.XXXXXX")
  # jdbc:mariadb://HOST:PORT/NAME
  local at=${url#jdbc:mariadb://}
  database=${at##*/}
  at=${at%%/*}
  local port=3306
  if [[ $at =~ ^(.*):([0-9]+)$ ]]; then at=${BASH_REMATCH[1]} port=${BASH_REMATCH[2]}; fi
  printf '[client]\nhost=%s\nport=%s\nuser="%s"\npassword="%s"\n' "${at//[\[\]]/}" "$port" "$user" "${password//\"/\\\"}" >"$access"
}

# dump ACCESS [DATABASE] : the records as SQL, of one moment, the same text for the same records.
dump() {
  mariadb-dump --defaults-file="$1" --single-transaction --quick --hex-blob --skip-dump-date --skip-comments --no-tablespaces \
    --default-character-set=utf8mb4 "${2:-yarrowmark}"
}

# ask ACCESS SQL : one answer, plainly.
ask() { mariadb --defaults-file="$1" --batch --skip-column-names "${database:-yarrowmark}" -e "$2"; }

# empty_place SHELF : sets base and place, and sees that there are no records.
empty_place() {
  base=${YARROWMARK_VAR:-$root/var}
  place=$base/$1
  mkdir -p "$base" || fail "$base cannot be made"
  [ -d "$place" ] || return 0
  exec 7>"$place/lock"
  flock -n 7 || fail "Yarrowmark is running in $place. Records are brought into an empty place only: stop it, and move $place away"
  [ ! -e "$place/mariadb" ] || fail "there are records in $place already, and they are not touched. Move $place away first, or set YARROWMARK_VAR to another directory"
}

# begin_records : sets work, a directory beside the place, and makes it go at the end whatever happens.
begin_records() {
  umask 077
  work=$(mktemp -d "$base/.restore.XXXXXX") || fail "$base cannot be written to"
  database='' access=''
  stop_records() {
    trap - EXIT
    exec 8>&- || true
    [ -z "$database" ] || wait "$database" 2>/dev/null || true
    rm -rf "$work" ${access:+"$access"}
  }
  trap 'stop_records' EXIT
  trap 'exit 1' INT TERM HUP
}

# start_records : an empty database in the work directory; sets url, user, password and access.
start_records() {
  local port
  mkfifo "$work/keep"
  "$root/bin/lib/database" "$work/mariadb" <"$work/keep" >"$work/ready" 2>"$work/said" 7>&- &
  database=$!
  exec 8>"$work/keep"
  while [ ! -s "$work/ready" ]; do
    kill -0 "$database" 2>/dev/null || { database=''; fail "the database did not start: $(tail -n 1 "$work/said")"; }
    sleep 0.1
  done
  IFS=$'\t' read -r url user password <"$work/ready"
  port=${url#jdbc:mariadb://127.0.0.1:}
  access=$(mktemp "${TMPDIR:-/tmp}/yarrowmark-access.XXXXXX")
  printf '[client]\nhost=127.0.0.1\nport=%s\nuser=%s\npassword=%s\n' "${port%%/*}" "$user" "$password" >"$access"
}

# put_in_place : the database has all that belongs in it; it ends, and its files go where a start looks for them.
put_in_place() {
  exec 8>&-
  wait "$database" 2>/dev/null || true
  database=''
  mkdir -p "$place"
  mv "$work/mariadb" "$place/mariadb"
}
