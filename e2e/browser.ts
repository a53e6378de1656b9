/**
 * Debian's Chromium without a window of its own. The whole one without a window draws the bars of a browser for each
 * page all the same: a fifth of the browser tests' processor time.
 */
export const CHROMIUM = '/usr/bin/chromium-headless-shell';
