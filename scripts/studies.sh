#!/usr/bin/env bash
# With "full" the ranking of faults is studied on thousands of units, for hours, and written into its page.
if [ "${1-}" = full ]; then export STUDY_SIZE=full; fi
# The long ones: thousands of simulated runs, and every journey for every family, size and cause.
set -eu
cd "$(dirname "$0")/.."
trap 'kill $(jobs -p) 2>/dev/null || true' EXIT
export NEXT_TELEMETRY_DISABLED=1

sh scripts/packages.sh
sh scripts/driver.sh
bash scripts/browser.sh
# Journeys and killed processes mostly wait: the studies take what they leave.
logs=$(mktemp -d)
npx --no-install playwright test --grep @sweep > "$logs/sweeps" 2>&1 &
sweeps=$!
# A process killed after every fortieth write; `npm run trust` does so after each.
npm run -s trust -- 40 > "$logs/trust" 2>&1 &
trust=$!
failed=0
nice -n 10 npx --no-install jest --selectProjects studies || failed=1
wait "$trust" || failed=1
wait "$sweeps" || failed=1
cat "$logs/trust" "$logs/sweeps"
rm -rf "$logs"
exit "$failed"
