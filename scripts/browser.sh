# Debian's Chromium, installed where it is missing and may be.
if [ ! -x /usr/bin/chromium ]; then
  if [ "$(id -u)" = 0 ]; then
    apt-get update && apt-get install -y --no-install-recommends chromium
  else
    echo "The end-to-end tests need Debian's Chromium: apt-get install chromium" >&2
    exit 1
  fi
fi
