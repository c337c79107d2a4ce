# Builds the application, unless the last build was made from the same sources.
set -eu
cd "$(dirname "$0")/.."
want=$(find src assets scripts/bundle.mjs package-lock.json next.config.ts tsconfig.json -type f -print0 | sort -z | xargs -0 sha256sum | sha256sum | cut -d' ' -f1)
if [ ! -f .next/BUILD_ID ] || [ ! -f .next/hard-pedal-sources ] || [ "$(cat .next/hard-pedal-sources)" != "$want" ]; then
  node scripts/bundle.mjs
  NEXT_TELEMETRY_DISABLED=1 npx --no-install next build
  printf '%s' "$want" > .next/hard-pedal-sources
fi
