#!/usr/bin/env bash
# Everything that a change is held against: packages, browser, lint, types, unit tests, end-to-end tests.
set -eu
cd "$(dirname "$0")/.."
# What still runs in the background when something fails is ended with it.
trap 'kill $(jobs -p) 2>/dev/null || true' EXIT
export NEXT_TELEMETRY_DISABLED=1

sh scripts/packages.sh
bash scripts/browser.sh
# Compiling and building keep one core busy, lint the other; then filling a shop for the journeys, and types.
export SEEDED_SHOP="${SEEDED_SHOP:-$(mktemp -d)}"
(sh scripts/driver.sh && sh scripts/build.sh) &
built=$!
# What lint finds is the last thing said, not pushed out of sight by a build that is ended in the middle.
linted=$(mktemp)
npm run -s lint > "$linted" 2>&1 || failed=lint
wait "$built"
cat "$linted"
rm -f "$linted"
[ "${failed:-}" != lint ] || exit 1
sh tests/e2e/fill-shop.sh &
filled=$!
npm run -s typecheck
wait "$filled"

# The browser's journeys mostly wait for a bench that runs in real time: unit tests take what they leave.
log=$(mktemp)
nice -n 10 npm run -s unit > "$log" 2>&1 &
unit=$!
failed=0
npm run -s e2e || failed=1
# Of unit tests that pass, the end is enough: what failed must not be pushed out of sight.
if wait "$unit"; then tail -n 6 "$log"; else failed=1; cat "$log"; fi
rm -f "$log"
exit "$failed"
