const BROWSERS: [sign: RegExp, name: string][] = [
  [/\bEdg(e|A|iOS)?\//, 'Edge'],
  [/\bFirefox\/|\bFxiOS\//, 'Firefox'],
  [/\bChrome\/|\bCriOS\/|\bHeadlessChrome\//, 'Chrome'],
  [/\bSafari\//, 'Safari'],
];
const MACHINES: [sign: RegExp, name: string][] = [
  [/\bAndroid\b/, 'Android'],
  [/\biPad\b/, 'an iPad'],
  [/\biPhone\b/, 'an iPhone'],
  [/\bWindows\b/, 'Windows'],
  [/\bMac OS X\b/, 'a Mac'],
  [/\bLinux\b/, 'Linux'],
];

/** What a browser calls itself, in words a person knows it by. */
export function browserWords(browser: string): string {
  const of = (list: [RegExp, string][]) => list.find(([sign]) => sign.test(browser))?.[1];
  const name = of(BROWSERS);
  const machine = of(MACHINES);
  if (name && machine) return `${name} on ${machine}`;
  return name ?? machine ?? (browser.slice(0, 40) || 'A program');
}
