# Installs what package-lock.json names, unless it is there already and up to date; nothing is compiled.
set -eu
cd "$(dirname "$0")/.."
stamp=node_modules/.hard-pedal-packages
want=$(cat package.json package-lock.json .npmrc | sha256sum | cut -d' ' -f1)-$(node -p 'process.version')
if [ ! -f "$stamp" ] || [ "$(cat "$stamp")" != "$want" ]; then
  echo "Installing packages …"
  npm ci --ignore-scripts --no-audit --no-fund
  printf '%s' "$want" > "$stamp"
fi
