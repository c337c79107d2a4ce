import { existsSync } from 'node:fs';

const debians = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium'];

/** Debian's Chromium, by its path: the one without windows where there is one. */
export const browserPath = debians.find((path) => existsSync(path)) ?? debians[1];
