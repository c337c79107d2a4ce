# Debian's Chromium, installed where it is missing and may be. The one without windows does its work in two thirds of the time.
shell=/usr/bin/chromium-headless-shell
if [ ! -x $shell ] && [ "$(id -u)" = 0 ]; then
  # Beside a browser that is there already nothing is asked of the network but the package.
  [ -x /usr/bin/chromium ] || apt-get update
  timeout 120 apt-get -o Acquire::Retries=0 -o Acquire::http::Timeout=10 \
    install -y --no-install-recommends chromium-headless-shell > /dev/null 2>&1 || true
fi
if [ ! -x $shell ] && [ ! -x /usr/bin/chromium ]; then
  if [ "$(id -u)" = 0 ]; then
    apt-get install -y --no-install-recommends chromium
  else
    echo "The end-to-end tests need Debian's Chromium: apt-get install chromium" >&2
    exit 1
  fi
fi
