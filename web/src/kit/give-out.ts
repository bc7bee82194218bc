/** An address is good for so long: whoever saves slowly still gets the file. */
const GOOD_FOR_MS = 10_000;

/** Gives a file out under a name. */
export function giveOut(blob: Blob, name: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), GOOD_FOR_MS);
}
