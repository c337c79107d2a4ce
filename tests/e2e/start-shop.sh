# A demo shop for the tests: filled once into SEEDED_SHOP, served from a copy.
set -eu
cd "$(dirname "$0")/../.."
export NEXT_TELEMETRY_DISABLED=1
sh scripts/build.sh
sh tests/e2e/fill-shop.sh
export HARD_PEDAL_DATA="$(mktemp -d)"
cp -R "$SEEDED_SHOP/." "$HARD_PEDAL_DATA"
PORT="$1" exec node scripts/serve.mjs
