# Shared by the commands in bin/. Sourced, not run.
set -euo pipefail
root=$(cd "$(dirname "${BASH_SOURCE[0]}")/../.." && pwd)
# A normal user's PATH on Debian leaves out where the database server lives.
export PATH="$PATH:/usr/sbin:/sbin"

# What a command is for and how it is called stands at its beginning.
case ${1:-} in
  -h|--help)
    sed -n '2,/^[^#]/{/^# \{0,1\}/!d;s///;p;}' "$0"
    exit 0 ;;
esac

say() { printf '%s\n' "$*" >&2; }
fail() { printf 'Yarrowmark cannot go on: %s\n' "$*" >&2; exit 1; }

# need_packages COMMAND=PACKAGE ... : installs the Debian packages whose command is missing.
need_packages() {
  local pair missing=()
  for pair in "$@"; do
    command -v "${pair%%=*}" >/dev/null 2>&1 || missing+=("${pair#*=}")
  done
  [ ${#missing[@]} -eq 0 ] && return 0
  command -v apt-get >/dev/null 2>&1 || fail "these are missing and this is not a Debian system: ${missing[*]}"
  local as_root=()
  if [ "$(id -u)" -ne 0 ]; then
    command -v sudo >/dev/null 2>&1 || fail "these Debian packages are missing, and there is no sudo to install them: ${missing[*]}"
    as_root=(sudo)
  fi
  say "Installing Debian packages: ${missing[*]}"
  # A fresh machine has old lists or none. The system's own database service is not needed and not started.
  "${as_root[@]}" env DEBIAN_FRONTEND=noninteractive apt-get update -qq >/dev/null || fail "apt-get update failed; run it by hand to see why"
  "${as_root[@]}" env DEBIAN_FRONTEND=noninteractive RUNLEVEL=1 apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null \
    || fail "apt-get could not install: ${missing[*]}"
}

# Maven and npm keep what they fetch in the home directory; where that cannot be written, a folder of this checkout is it.
usable_home() {
  local probe
  if probe=$(mktemp "${HOME:-/nonexistent}/.yarrowmark.XXXXXX" 2>/dev/null); then
    rm -f "$probe"
    return 0
  fi
  say "The home directory ${HOME:-} cannot be written, so what is fetched is kept in $root/var/home"
  export HOME=$root/var/home
  mkdir -p "$HOME"
  export MAVEN_OPTS="${MAVEN_OPTS:-} -Duser.home=$HOME"
}

need_tools() {
  usable_home
  command -v javac >/dev/null 2>&1 || fail "a JDK 17 or newer is missing (Debian: apt-get install openjdk-17-jdk-headless)"
  local java_major
  # What JAVA_TOOL_OPTIONS makes it say goes to standard error.
  java_major=$(javac -version 2>/dev/null | sed -E 's/[^0-9]*([0-9]+).*/\1/')
  [ "${java_major:-0}" -ge 17 ] || fail "this JDK is version $java_major; 17 or newer is needed"
  command -v mvn >/dev/null 2>&1 || fail "Maven is missing (Debian: apt-get install maven)"
  command -v node >/dev/null 2>&1 || fail "Node.js 20.19 or newer is missing"
  node -e 'const [a,b]=process.versions.node.split(".").map(Number);process.exit(a>20||(a===20&&b>=19)?0:1)' \
    || fail "this Node.js is $(node --version); 20.19 or newer is needed"
  command -v npm >/dev/null 2>&1 || fail "npm is missing; it comes with Node.js"
}

port_is_free() { ! (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }

# A port that nobody is likely to have. From where the system begins to hand out ports to connections that go out, one that
# nobody listens at may be taken all the same, and a server that binds it fails.
any_port() {
  local outgoing=32768
  read -r outgoing _ 2>/dev/null </proc/sys/net/ipv4/ip_local_port_range || true
  [ "$outgoing" -gt 21000 ] || outgoing=40000
  echo $((20000 + RANDOM % (outgoing - 20000)))
}

# free_port [WANTED] : the wanted port where it is free, else another.
free_port() {
  local port=${1:-0} tries=0
  while [ "$port" -eq 0 ] || ! port_is_free "$port"; do
    port=$(any_port)
    tries=$((tries + 1))
    [ $tries -lt 200 ] || fail "no free port was found on 127.0.0.1"
  done
  echo "$port"
}

# take_port VARIABLE WANTED : like free_port, and no other Yarrowmark of this user takes it until this command ends, also
# while nothing listens there yet.
take_port() {
  local -n taken=$1
  local wanted=$2 tries=0 fd locks
  locks=${TMPDIR:-/tmp}/yarrowmark-ports-$(id -u)
  mkdir -p "$locks" || fail "$locks could not be made"
  taken=$wanted
  while :; do
    if [ "$taken" -ne 0 ] && port_is_free "$taken" && exec {fd}>"$locks/$taken"; then
      ! flock -n "$fd" || return 0
      exec {fd}>&-
    fi
    taken=$(any_port)
    tries=$((tries + 1))
    [ $tries -lt 200 ] || fail "no free port was found on 127.0.0.1"
  done
}

# Builds the program unless nothing has changed since the last time.
build_program() {
  local jar=$root/server/target/yarrowmark.jar
  if [ -f "$jar" ] && [ -z "$(find "$root" \( -name node_modules -o -name target -o -name dist -o -name var -o -name .git -o -name e2e -o -name generated -o -name docs \) -prune \
      -o -type f -newer "$jar" ! -path '*/src/test/*' ! -name '*.test.ts*' ! -path "$root/bin/*" ! -name schema.d.ts ! -name '*.md' -print -quit)" ]; then
    return 0
  fi
  say "Building Yarrowmark (the first time takes some minutes)"
  (cd "$root" && mvn -q -B -ntp -pl core,web,runner,server package -DskipTests) >&2 || fail "the build failed; its messages are above"
}

# build_runner_folder : the runner with a Java of its own, for computers that have none. Only where this JDK can make one;
# without it the bench offers the jar alone.
build_runner_folder() {
  local jar=$root/runner/target/yarrow-runner.jar out=$root/runner/target/yarrow-runner-linux-x64.tar.gz fresh home
  [ "$(uname -sm)" = 'Linux x86_64' ] && [ -f "$jar" ] && command -v jlink >/dev/null || return 0
  [ ! -f "$out" ] || [ "$jar" -nt "$out" ] || return 0
  home=$(dirname "$(dirname "$(readlink -f "$(command -v jlink)")")")
  [ -d "$home/jmods" ] || return 0
  fresh=$(mktemp -d "$root/runner/target/folder.XXXXXX" 2>/dev/null) || return 0
  mkdir "$fresh/yarrow-runner"
  if jlink --add-modules java.base,java.desktop,java.logging,java.management,java.net.http,java.xml,jdk.crypto.ec,jdk.unsupported \
    --strip-debug --no-header-files --no-man-pages --compress=2 --output "$fresh/yarrow-runner/java" >/dev/null 2>&1; then
    cp "$jar" "$fresh/yarrow-runner/"
    printf '#!/bin/sh\nhere=$(dirname "$(readlink -f "$0")")\nexec "$here/java/bin/java" -jar "$here/yarrow-runner.jar" "$@"\n' >"$fresh/yarrow-runner/yarrow-runner"
    chmod 755 "$fresh/yarrow-runner/yarrow-runner"
    # Without room for it the program starts all the same.
    { tar -C "$fresh" -czf "$fresh/it.tar.gz" yarrow-runner && mv "$fresh/it.tar.gz" "$out"; } || true
  fi
  rm -rf "$fresh"
}

# unpack_program VARIABLE : where the built program lies unpacked, from which Java starts it sooner than from one archive,
# and where the classes of an earlier start are kept.
unpack_program() {
  local -n unpacked=$1
  local jar=$root/server/target/yarrowmark.jar programs=$root/server/target/program name fresh left
  name=$(stat -c '%s-%Y' "$jar")
  if [ ! -d "$programs/$name" ]; then
    mkdir -p "$programs"
    fresh=$(mktemp -d "$programs/fresh.XXXXXX")
    java -Djarmode=tools -jar "$jar" extract --destination "$fresh/it" >/dev/null 2>&1 || fail "the built program could not be unpacked from $jar"
    # Whoever was first has the same. What earlier builds left goes, unless a program still runs from it.
    if mv -T "$fresh/it" "$programs/$name" 2>/dev/null; then
      for left in "$programs"/[0-9]*; do
        [ "$left" = "$programs/$name" ] || (flock -n 5 && rm -rf "$left") 5>"$left/used" || true
      done
    fi
    rm -rf "$fresh"
  fi
  # Kept classes count only at the very address they were kept from, whichever links lead there.
  unpacked=$(cd "$programs/$name" && pwd -P)
}

# program_java VARIABLE PROGRAM : the Java that runs an unpacked program, with the classes of an earlier start where those were kept.
program_java() {
  local -n words=$1
  words=(java -XX:+UseSerialGC -Xshare:auto)
  [ ! -f "$2/classes.jsa" ] || words+=(-XX:SharedArchiveFile="$2/classes.jsa")
}

# Builds what bin/ runs of the tests, unless nothing has changed since the last time. Everything comes from this checkout:
# nothing of ours is installed anywhere, so a fresh machine and one with older versions do the same.
build_mains() {
  local stamp=$root/e2e/target/mains.stamp
  if [ -f "$stamp" ] && [ -z "$(find "$root/pom.xml" "$root"/{core,runner,server,e2e}/{pom.xml,src} -type f -newer "$stamp" -print -quit)" ]; then
    return 0
  fi
  (cd "$root" && mvn -q -B -ntp -T 2 -pl core,runner,server,e2e -am test-compile dependency:build-classpath -Dexec.skip -Dnull.checks=-parameters \
    -Dmdep.outputFile='${project.build.directory}/classpath' -Dmdep.includeScope=test) >&2 || fail "it could not be built; the messages are above"
  touch "$stamp"
}

# run_main MODULE CLASS [ARGUMENT ...] : runs a program among a module's tests. What JAVA_OPTIONS holds goes to its Java.
run_main() {
  local module=$1
  shift
  build_mains
  (cd "$root/$module" && java ${JAVA_OPTIONS:-} -cp "target/test-classes:target/classes:$(cat target/classpath)" "$@")
}
