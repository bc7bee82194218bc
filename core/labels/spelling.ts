/** Words that the law of the United States spells otherwise than we do. */
const AMERICAN: readonly [RegExp, string][] = [
  [/sulph/g, 'sulf'],
  [/Sulph/g, 'Sulf'],
  [/\b([Cc])olour/g, '$1olor'],
  [/\b([Ff])lavour/g, '$1lavor'],
  [/\b([Ii])odised\b/g, '$1odized'],
  [/\b([Pp])asteurised\b/g, '$1asteurized'],
  [/\b([Cc])rystallised\b/g, '$1rystallized'],
];

/**
 * Words of a label in the spelling of the place it is sold in.
 *
 * @param locale  the kitchen's: its place is where it sells
 * @example
 * labelSpelling('lemon juice (sulphites)', 'en-US'); // 'lemon juice (sulfites)'
 */
export function labelSpelling(text: string, locale: string): string {
  if (locale !== 'en-US') return text;
  return AMERICAN.reduce((said, [from, to]) => said.replace(from, to), text);
}
