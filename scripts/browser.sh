# Debian's Chromium, installed where it is missing and may be. The one without windows does its work in two thirds of the time.
shell=/usr/bin/chromium-headless-shell
fetch() {
  timeout "$1" apt-get -o Acquire::Retries=0 -o Acquire::http::Timeout=10 \
    install -y --no-install-recommends --download-only "$2" > /dev/null 2>&1
}
if [ ! -x $shell ] && [ "$(id -u)" = 0 ]; then
  [ -x /usr/bin/chromium ] || apt-get update
  echo "Fetching Debian's chromium-headless-shell for the end-to-end tests …"
  # What was fetched in time is installed without a limit: a package manager is never ended in the middle.
  if fetch 90 chromium-headless-shell; then
    apt-get install -y --no-install-recommends --no-download chromium-headless-shell > /dev/null || true
  fi
  [ -x $shell ] || [ ! -x /usr/bin/chromium ] || echo "It could not be had: they take /usr/bin/chromium."
fi
if [ ! -x $shell ] && [ ! -x /usr/bin/chromium ]; then
  if [ "$(id -u)" = 0 ]; then
    apt-get install -y --no-install-recommends chromium
  else
    echo "The end-to-end tests need Debian's Chromium: apt-get install chromium" >&2
    exit 1
  fi
fi
