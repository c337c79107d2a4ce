# A demo shop in an empty folder, for the tests.
set -eu
cd "$(dirname "$0")/../.."
export HARD_PEDAL_DATA="$(mktemp -d)"
export NEXT_TELEMETRY_DISABLED=1
sh scripts/build.sh
node --import tsx scripts/seed-demo-shop.ts
exec npx --no-install next start --hostname 127.0.0.1 --port "$1"
