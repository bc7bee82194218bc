/** Plain words on the terminal. No dependencies: this runs before anything is installed. */
export const say = line => process.stdout.write(`${line}\n`);

/** Ends with one line that says what is wrong and what to do. */
export function fail(line) {
  process.stderr.write(`cocotte: ${line}\n`);
  process.exit(1);
}

/** @returns {void} ends unless this Node can run us */
export function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19))
    fail(`Node ${process.versions.node} is too old; install Node 20.19 or newer.`);
}
