#!/usr/bin/env bash
# Everything: packages, browser, type-check, lint, unit tests, studies, end-to-end tests.
set -eu
cd "$(dirname "$0")/.."
# What still runs in the background when something fails is ended with it.
trap 'kill $(jobs -p) 2>/dev/null || true' EXIT
export NEXT_TELEMETRY_DISABLED=1

sh scripts/packages.sh
# The driver keeps one core busy while the rest needs no database.
sh scripts/driver.sh &
driver=$!
if [ ! -x /usr/bin/chromium ]; then
  if [ "$(id -u)" = 0 ]; then
    apt-get update && apt-get install -y --no-install-recommends chromium
  else
    echo "The end-to-end tests need Debian's Chromium: apt-get install chromium" >&2
    exit 1
  fi
fi
npm run -s typecheck
npm run -s lint
wait "$driver"
npm run -s unit

# The browser's journeys mostly wait for a bench that runs in real time: the studies take the cores it leaves.
log=$(mktemp)
nice -n 19 npm run -s studies > "$log" 2>&1 &
studies=$!
failed=0
npm run -s e2e || failed=1
wait "$studies" || failed=1
cat "$log"
rm -f "$log"
exit "$failed"
