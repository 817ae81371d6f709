/** What makers call a figure, and the specs that it may be: the first that the device has, and that the figure’s unit fits. */
export interface Term {
  readonly name: string
  readonly keys: readonly string[]
  /** Without accents, in small letters. */
  readonly pattern: RegExp
  /** Why its figure is not taken. */
  readonly unused?: string
  /** Of a port’s figure: which side of the box it is on. */
  readonly side?: 'in' | 'out'
}

const term = (name: string, keys: readonly string[], pattern: RegExp, more: Partial<Term> = {}): Term => ({
  name,
  keys,
  pattern: new RegExp(pattern.source, 'g'),
  ...more,
})
const unused = (name: string, pattern: RegExp, why = 'Nothing here is computed from it.'): Term =>
  term(name, [], pattern, { unused: why })

const MAX = String.raw`max(?:imum|imal(?:er|e|es|a)?|imo|ima|\.)?`
const pattern = (...sources: readonly string[]) => new RegExp(sources.map((each) => `(?:${each})`).join('|'))

/** The terms in English, German, French and Spanish; of two that begin at one place the longer is meant. */
export const TERMS: readonly Term[] = [
  term(
    'ein',
    ['ein'],
    pattern(
      String.raw`\be\.?i\.?n\b\.?`,
      'equivalent input noise',
      'input[- ]referred noise',
      'aquivalente[sn]? eingangsrausch\\w*',
      'eingangsrausch\\w*',
      "bruit (?:d'entree equivalent|equivalent (?:en|d'|a l'|ramene a l')\\s?entree|ramene a l'entree)",
      'ruido (?:equivalente (?:de|a la) entrada|de entrada equivalente)',
    ),
    { side: 'in' },
  ),
  term(
    'gainStep',
    ['gainStep'],
    /gain steps?|(?:in )?steps? of|schrittweite|in schritten von|pas de gain|(?:por|en) pas(?:os|o) de|par pas de/,
    { side: 'in' },
  ),
  term(
    'gainMax',
    ['gainMax'],
    pattern(String.raw`${MAX} ?(?:gain|verstarkung|ganancia)`, 'gain max\\w*\\.?', 'ganancia max\\w*'),
    { side: 'in' },
  ),
  term(
    'gainMin',
    ['gainMin'],
    pattern('min(?:imum|imale|imal|ima|\\.)? ?(?:gain|verstarkung|ganancia)', 'gain min\\w*\\.?', 'ganancia min\\w*'),
    { side: 'in' },
  ),
  term(
    'gainRange',
    ['gainRange'],
    pattern(
      'gain(?: adjustment)? range',
      'range of gain',
      'gain[- ]?bereich',
      'verstarkungsbereich',
      'verstarkung',
      'plage de (?:reglage du )?gain',
      '(?:rango|margen) de ganancia',
      'ganancia',
      String.raw`\bgain\b`,
    ),
    { side: 'in' },
  ),
  term(
    'maxSpl',
    ['maxSpl'],
    pattern(
      String.raw`${MAX} ?(?:spl|sound pressure(?: level)?|schalldruck(?:pegel)?|input sound pressure level)`,
      'spl max\\w*\\.?',
      'grenzschalldruck(?:pegel)?',
      'overload (?:spl|sound pressure)\\w*',
      'spl handling',
      '(?:niveau de )?pression acoustique max\\w*\\.?',
      'niveau spl max\\w*',
      'pression max\\w*',
      '(?:nivel (?:max\\w*\\.? )?de )?presion (?:sonora|acustica)(?: max\\w*)?',
    ),
  ),
  term(
    'maxInput',
    ['fullScale', 'maxInput'],
    pattern(
      String.raw`${MAX} ?(?:analogue |analog )?(?:input|in|eingangs|mic|mikrofon|line)[- ]?(?:level|pegel|spannung)?\b`,
      String.raw`${MAX} ?(?:(?:mic|line|instrument) )?input level`,
      'input (?:level )?max\\w*\\.?',
      'input (?:clip(?:ping)?(?: level| point)?|headroom|level,? max\\w*\\.?)',
      String.raw`(?:mic|line|inst\w*|hi-?z) (?:in|input) max\w*\.?`,
      'eingangspegel,? max\\w*\\.?',
      String.raw`eingangspegel`,
      "niveau (?:max\\w*\\.? )?d'entree(?: max\\w*\\.?)?",
      'nivel (?:max\\w*\\.? )?de entrada(?: max\\w*\\.?)?',
      'full[- ]scale input(?: level)?',
      'full[- ]scale level',
      String.raw`\b0 ?dbfs ?(?:=|at|:|≙|entspricht|correspond \w+|equivale \w+)`,
      'input level',
    ),
  ),
  term(
    'maxOutput',
    ['maxOutput', 'fullScale'],
    pattern(
      String.raw`${MAX} ?(?:analogue |analog )?(?:output|out|ausgangs)[- ]?(?:level|pegel|spannung)?\b`,
      String.raw`${MAX} ?(?:line|headphones?|monitor|phones) (?:output|out)(?: level)?`,
      'output (?:level )?max\\w*\\.?',
      'output (?:clip(?:ping)?(?: level| point)?|headroom|level,? max\\w*\\.?)',
      String.raw`(?:line|phones|headphones?|monitor) (?:out|output) max\w*\.?`,
      'ausgangspegel,? max\\w*\\.?',
      'ausgangspegel',
      'niveau (?:max\\w*\\.? )?de sortie(?: max\\w*\\.?)?',
      'nivel (?:max\\w*\\.? )?de salida(?: max\\w*\\.?)?',
      'full[- ]scale output(?: level)?',
      'output level',
    ),
    { side: 'out' },
  ),
  term(
    'dynamicRange',
    ['dynamicRange'],
    pattern(
      'dynamic range',
      String.raw`\bd\.?n\.?r\b`,
      'dynamikumfang',
      'dynamikbereich',
      String.raw`\bdynamik\b`,
      '(?:plage|gamme) dynamique',
      String.raw`\bdynamique\b`,
      '(?:rango|margen) dinamico',
    ),
  ),
  term(
    'signalToNoise',
    ['selfNoise'],
    pattern(
      String.raw`\bs ?\/ ?n(?: ratio)?\b`,
      String.raw`\bsnr\b`,
      'signal[- ](?:to[- ])?noise(?: ratio)?',
      '(?:gerauschspannungs|signal[- ]rausch|storpegel)[- ]?abstand',
      'rapport signal ?(?:/|sur|-)? ?bruit',
      'relacion se.al ?(?:/|-|a) ?ruido',
    ),
  ),
  term(
    'selfNoise',
    ['selfNoise'],
    pattern(
      'self[- ]?noise',
      'equivalent (?:noise|self[- ]noise)(?: (?:level|spl))?',
      'inherent noise',
      'ersatzgerausch(?:pegel)?',
      'eigenrausch\\w*',
      'grundgerauschpegel',
      'bruit propre',
      '(?:niveau de )?bruit equivalent',
      'ruido propio',
      '(?:nivel de )?ruido equivalente',
      'autorruido',
    ),
  ),
  term(
    'sensitivity',
    ['sensitivity', 'digitalSensitivity'],
    pattern(
      '(?:open[- ]circuit )?sensitivity',
      'empfindlichkeit',
      '(?:feld-?)?(?:leerlauf-?)?ubertragungsfaktor',
      'sensibilite',
      'sensibilidad',
      String.raw`\befficacite\b`,
    ),
  ),
  unused(
    'load',
    /(?:recommended |rated |nominal |minimum |min\. )?load(?:ing)? (?:impedance|resistance)|(?:rated|recommended|minimum) load\b|(?:nenn)?(?:abschluss|last)(?:impedanz|widerstand)|(?:mindest)?abschlusswiderstand|impedance de charge|impedancia de carga/,
    'That is the load it needs, not its own impedance.',
  ),
  term(
    'inputImpedance',
    ['inputImpedance', 'impedance'],
    pattern(
      '(?:input|in) (?:impedance|resistance|z)\\b',
      String.raw`\bz ?in\b`,
      'eingangs(?:impedanz|widerstand)',
      "impedance d'entree",
      'impedancia de entrada',
    ),
    { side: 'in' },
  ),
  term(
    'outputImpedance',
    ['outputImpedance', 'impedance'],
    pattern(
      '(?:output|source|internal|out) (?:impedance|resistance|z)\\b',
      String.raw`\bz ?out\b`,
      'ausgangs(?:impedanz|widerstand)',
      'quellimpedanz',
      'innenwiderstand',
      'impedance (?:de sortie|de source|interne)',
      'impedancia (?:de salida|interna)',
    ),
    { side: 'out' },
  ),
  term(
    'impedance',
    ['impedance', 'outputImpedance', 'inputImpedance'],
    pattern('(?:rated |nominal |nenn)?impedan(?:ce|z|cia)(?: nominale| nominal)?'),
  ),
  term(
    'pad',
    ['pad', 'loss'],
    pattern(
      String.raw`(?<!with )(?<!w/ )(?<!mit )(?<!avec )(?<!con )\bpad\b(?!,? (?:in|on|out|off|engaged|ein|aus)\b)`,
      'vordampfung',
      'attenuateur',
      'atenuador',
      'pre-?attenuat\\w+',
      'vorabschwachung',
    ),
  ),
  term(
    'lowCut',
    ['lowCut'],
    pattern(
      'low[- ]?cut',
      'high[- ]?pass(?: filter)?',
      String.raw`\bhpf\b`,
      'hochpass\\w*',
      'trittschallfilter',
      'tiefensperre',
      'coupe[- ]bas',
      'passe[- ]haut',
      'paso alto',
      'corta ?graves',
    ),
  ),
  term('outputNoise', ['outputNoise'], /output noise|ausgangsrausch\w*|bruit de sortie|ruido de salida/),
  term('latency', ['latency'], /latency|latenz|latence|latencia/),
  term('inductance', ['inductance'], /inductance|induktivitat|inductancia/),
  term('loss', ['loss', 'pad'], /\bloss\b|attenuation|dampfung|atenuacion/),
  term(
    'ratio',
    ['ratio'],
    /(?:turns )?ratio|ubersetzungsverhaltnis|rapport de transformation|relacion de transformacion/,
  ),
  term(
    'pattern',
    ['pattern'],
    /polar patterns?|pick-?up patterns?|directional (?:pattern|characteristic)s?|richtcharakteristik|directivite|diagramme polaire|patron(?:es)? polar(?:es)?|directividad|\bpattern\b/,
  ),
  unused(
    'response',
    /frequency (?:response|range)|frequenzgang|ubertragungsbereich|(?:reponse|bande) (?:en frequence|passante)|respuesta (?:en|de) frecuencia|bandwidth|bandbreite/,
  ),
  unused('distortion', /(?<!% )(?<!at )\bt\.?h\.?d\b(?: ?\+ ?n)?|(?<!% )distortion|klirrfaktor|(?<!% )distorsion/),
  unused('rejection', /\bcmrr\b|common[- ]mode rejection\w*|gleichtaktunterdruckung/),
  unused('crosstalk', /crosstalk|ubersprechen|diaphonie|diafonia|channel separation/),
  unused(
    'supply',
    /(?:current|power) consumption|stromaufnahme|leistungsaufnahme|consommation|consumo|power supply|stromversorgung|alimentation\b|alimentacion/,
  ),
  unused(
    'phantom',
    /phantom(?: power)?|phantomspeisung|alimentation fantome|alimentacion (?:fantasma|phantom)/,
    '48 V is set at the card of the stage.',
  ),
  unused(
    'rates',
    /sampl(?:e|ing) rates?|abtastraten?|frequences? d'echantillonnage|frecuencias? de muestreo|resolution|bit depth|bits? de resolution/,
    'Rates are set at the unit.',
  ),
  unused(
    'body',
    /dimensions?|\bweight\b|abmessungen|\bgewicht\b|\bmasse\b|\bpoids\b|\bpeso\b|dimensiones|operating temperature|connectors?|cable length/,
  ),
]
