// Debian's chromium for tests and pictures.
import { chromium } from "playwright-core";

const FLAGS = [
  "--no-sandbox",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
];

export const launch = (extra = {}) =>
  chromium.launch({ executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium", args: FLAGS, ...extra });
