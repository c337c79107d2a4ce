#!/usr/bin/env bash
# Everything: packages, browser, type-check, lint, unit tests, end-to-end tests.
set -eu
cd "$(dirname "$0")/.."
sh scripts/install.sh
if [ ! -x /usr/bin/chromium ]; then
  if [ "$(id -u)" = 0 ]; then
    apt-get update && apt-get install -y --no-install-recommends chromium
  else
    echo "The end-to-end tests need Debian's Chromium: apt-get install chromium" >&2
    exit 1
  fi
fi
export NEXT_TELEMETRY_DISABLED=1
npm run -s typecheck
npm run -s lint
npm run -s unit
npm run -s e2e
