# Fills the folder SEEDED_SHOP with the demo shop, unless it is filled already.
set -eu
cd "$(dirname "$0")/../.."
if [ ! -f "$SEEDED_SHOP/filled" ]; then
  HARD_PEDAL_DATA="$SEEDED_SHOP" node --import tsx scripts/seed-demo-shop.ts
  touch "$SEEDED_SHOP/filled"
fi
