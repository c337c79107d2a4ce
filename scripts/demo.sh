#!/usr/bin/env bash
# From a bare clone to a running demo shop: installs, builds, migrates, fills, starts, prints the address.
set -eu
cd "$(dirname "$0")/.."
sh scripts/install.sh
sh scripts/build.sh
export HARD_PEDAL_DATA="${HARD_PEDAL_DATA:-$PWD/data}"
export NEXT_TELEMETRY_DISABLED=1
node --import tsx scripts/migrate.ts
node --import tsx scripts/seed-demo-shop.ts
port="${PORT:-4380}"
# The next free port, so that a second demo does not end the first.
while (exec 3<>"/dev/tcp/127.0.0.1/$port") 2>/dev/null; do port=$((port + 1)); done
PORT="$port" exec node scripts/serve.mjs
