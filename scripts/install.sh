# Everything that the application needs to be built and run.
set -eu
cd "$(dirname "$0")"
sh packages.sh
sh driver.sh
