// Loaded before the app: whoever started it holds the other end of its standard input; with that gone, it goes too.
process.stdin.resume().on("end", () => process.exit(0));
process.stdin.on("error", () => process.exit(0));
