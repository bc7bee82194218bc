import type { Fault } from '../measure/index.ts';

/** What somebody may write of their own, and what a rule says of it. */
interface Claim {
  code: string;
  words: RegExp;
  /** Refused outright, or told of with what has to be true of it. */
  stops: boolean;
  why: string;
  next: string;
  source: string;
}

/** Claims that rules are made for. All sources from memory. */
const CLAIMS: readonly Claim[] = [
  {
    code: 'health-claim',
    words:
      /\b(?:cures?|heals?|treats?|prevents?|remed(?:y|ies)|medicinal|therapeutic|detox\w*|immun\w+|anti-?oxidants?|anti-?inflammator\w+|(?:lowers?|reduces?) (?:your )?(?:cholesterol|blood (?:sugar|pressure))|good for (?:your |the )?\w+|heart[- ]healthy|probiotics?|diabetics?|diabetes|cancer|weight loss|slimming|superfoods?)\b/i,
    stops: true,
    why: 'What a food does for health is a health claim: each needs its own authorisation, and with one a jar may be an unapproved drug.',
    next: 'Leave it out.',
    source: '21 CFR 101.14 and 101.70 to 101.83; Regulation (EC) 1924/2006',
  },
  {
    code: 'nutrient-claim',
    words:
      /\b(?:(?:sugar|fat|salt|sodium|calorie|cholesterol|gluten|carb)[- ]?free(?<!gluten[- ]?free)|no (?:added )?(?:sugar|fat|salt|sodium)|(?:low|lower|reduced|less|light in|lite)(?:[- ](?:in ))?[- ]?(?:sugar|fat|salt|sodium|calories?|carbs?)|(?:high|rich|excellent source|good source)(?:[- ](?:in|of))?[- ]?(?:fib(?:re|er)|protein|vitamins?|vitamin \w|iron|potassium)|unsweetened|sugarless|light|lite|healthy|lean|fortified|enriched)\b/i,
    stops: true,
    why: 'Words about how much of a nutrient is in it may be used only where the food meets the figure set for each, beside nutrition facts.',
    next: 'Leave it out, or have the figures of a laboratory and the panel that goes with it.',
    source: '21 CFR 101.13 and 101.54 to 101.65; Regulation (EC) 1924/2006',
  },
  {
    code: 'organic-claim',
    words: /\b(?:organic(?:ally)?|biologic(?:al)?ly grown)\b/i,
    stops: true,
    why: '"Organic" may be said of a product only as its certification allows; a small producer who is exempt from certification may still not use the seal, and keeps records.',
    next: 'Leave it out, or ask a certifier. An ingredient that was bought as organic may be called so in the list.',
    source: '7 CFR 205.100 and 205.300; Regulation (EU) 2018/848',
  },
  {
    code: 'gluten-free-claim',
    words: /\b(?:gluten[- ]?free|no gluten|without gluten)\b/i,
    stops: true,
    why: '"Gluten-free" says that the food was shown to hold under 20 parts in a million, also of what a home kitchen brings in.',
    next: 'Leave it out, or have it measured.',
    source: '21 CFR 101.91; Regulation (EU) 828/2014',
  },
  {
    code: 'allergen-free-claim',
    words:
      /\b(?:(?:nut|dairy|milk|egg|soy|peanut|allergen|sulphite|sulfite)[- ]?free|free (?:of|from) \w+)\b/i,
    stops: true,
    why: 'Somebody with an allergy stakes their life on it; a home kitchen that holds it at other times cannot show it.',
    next: 'Leave it out. The list of ingredients and the line beneath it say what is in it.',
    source: 'Common practice of allergen labelling, no source',
  },
  {
    code: 'vegan-claim',
    words: /\b(?:vegan|vegetarian|kosher|halal)\b/i,
    stops: false,
    why: 'Nobody defines it for all, but it has to be true of every ingredient and aid; kosher and halal are said by who certifies them.',
    next: 'Hold it against the list of ingredients.',
    source: 'Common practice, no source',
  },
  {
    code: 'natural-claim',
    words: /\b(?:all[- ])?natural\b/i,
    stops: false,
    why: '"Natural" is read as: nothing artificial or synthetic was added that one would not expect, colours included.',
    next: 'Hold it against pectin, preservatives and colours in the list.',
    source: 'FDA policy of 1993 (58 FR 2302)',
  },
  {
    code: 'fresh-claim',
    words: /\bfresh\b(?! (?:fruit|picked|herbs|dill|from))/i,
    stops: true,
    why: '"Fresh" says that a food is raw and was neither frozen, heated nor preserved.',
    next: 'Say what was fresh: "made from fresh fruit".',
    source: '21 CFR 101.95',
  },
  {
    code: 'no-preservatives-claim',
    words: /\b(?:no|without|zero) preservatives?\b|\bpreservative[- ]?free\b/i,
    stops: false,
    why: 'It has to be true of bought ingredients too: sulphites in bottled juice, benzoate in pectin.',
    next: 'Hold it against the package text in the list.',
    source: '21 CFR 101.22(j)',
  },
  {
    code: 'local-claim',
    words: /\b(?:local(?:ly)?|home[- ]?grown|wild)\b/i,
    stops: false,
    why: 'It has to be true of what went into this batch.',
    next: 'Hold it against the lots that were drawn.',
    source: 'Common practice, no source',
  },
];

/** What rules say of somebody's own words. `stops` is false where it only has to be true. */
export function claimsIn(
  words: string,
  path: string,
): (Fault & { stops: boolean; source: string; said: string })[] {
  return CLAIMS.flatMap(({ code, words: found, stops, why, next, source }) => {
    const said = found.exec(words.normalize('NFC'))?.[0];
    return said === undefined
      ? []
      : [
          {
            path,
            code,
            said,
            stops,
            source: `${source} (from memory)`,
            what: stops ? `"${said}" may not be said here as it stands.` : `"${said}" has to be true.`,
            why,
            next,
          },
        ];
  });
}
