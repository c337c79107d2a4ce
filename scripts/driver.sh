# Compiles the database driver of the installed packages, unless that is done.
set -eu
cd "$(dirname "$0")/.."
stamp=node_modules/.hard-pedal-driver
want=$(cat node_modules/.hard-pedal-packages)
if [ ! -f "$stamp" ] || [ "$(cat "$stamp")" != "$want" ]; then
  echo "Compiling the database driver, which may take a minute or two …"
  # On every core, and hardly optimised: a driver that waits for the disk gains nothing from minutes of compiling.
  JOBS="${JOBS:-max}" CFLAGS="${CFLAGS:--O1}" CXXFLAGS="${CXXFLAGS:--O1}" npm rebuild better-sqlite3 esbuild
  printf '%s' "$want" > "$stamp"
fi
