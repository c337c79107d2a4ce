# Installs what package-lock.json names, unless it is there already and up to date.
set -eu
cd "$(dirname "$0")/.."
stamp=node_modules/.hard-pedal-installed
want=$(cat package.json package-lock.json .npmrc | sha256sum | cut -d' ' -f1)-$(node -p 'process.version')
if [ ! -f "$stamp" ] || [ "$(cat "$stamp")" != "$want" ]; then
  echo "Installing packages (better-sqlite3 may compile for a minute or two) …"
  # Compiling takes every core.
  JOBS="${JOBS:-max}" npm ci --no-audit --no-fund
  printf '%s' "$want" > "$stamp"
fi
