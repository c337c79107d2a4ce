# Compiles the database driver of the installed packages, unless that is done.
set -eu
cd "$(dirname "$0")/.."
stamp=node_modules/.hard-pedal-driver
want=$(cat node_modules/.hard-pedal-packages)
if [ ! -f "$stamp" ] || [ "$(cat "$stamp")" != "$want" ]; then
  echo "Compiling the database driver, which may take a minute or two …"
  # Every core, where there is more than one thing to compile.
  JOBS="${JOBS:-max}" npm rebuild better-sqlite3 esbuild
  printf '%s' "$want" > "$stamp"
fi
