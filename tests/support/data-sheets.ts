/**
 * Data sheets in the layouts that makers use, all invented: what is printed, and the figures that it says. Those in HTML are laid
 * out and printed to PDF by the browser tests.
 */
export interface InventedSheet {
  readonly name: string
  readonly of: 'microphone' | 'digital microphone' | 'preamp' | 'interface' | 'di-box' | 'electric-source'
  readonly as: 'text' | 'table' | 'html'
  readonly sheet: string
  /** By the ports or the device (''), then by the spec. */
  readonly says: Readonly<Record<string, Readonly<Record<string, number | string>>>>
}

export const INVENTED_SHEETS: readonly InventedSheet[] = [
  {
    name: 'a microphone in plain lines',
    of: 'microphone',
    as: 'text',
    sheet: `Heron 2 small condenser microphone
Polar pattern: cardioid
Frequency response: 30 Hz to 20 kHz
Sensitivity: 15 mV/Pa (−36.5 dBV/Pa) ± 2 dB
Output impedance: 180 ohms
Recommended load impedance: > 1000 ohms
Equivalent noise level: 16 dB-A
Signal-to-noise ratio: 78 dB (re 94 dB SPL, A-weighted)
Maximum SPL (THD 0.5 %): 136 dB SPL
Phantom power: 48 V, 3.2 mA`,
    says: { '': { sensitivity: 15, impedance: 180, selfNoise: 16, maxSpl: 136, pattern: 'cardioid' } },
  },
  {
    name: 'a ribbon in dBV per pascal, dots for gaps',
    of: 'microphone',
    as: 'text',
    sheet: `Sensitivity .......... −53 dBV/Pa
Impedance ............ 270 Ω
SPL max .............. 146 dB
Polar pattern ........ figure-8
Weight ............... 310 g`,
    says: { '': { sensitivity: 2.2387, impedance: 270, maxSpl: 146, pattern: 'figure-8' } },
  },
  {
    name: 'a German microphone',
    of: 'microphone',
    as: 'text',
    sheet: `Richtcharakteristik   Superniere
Übertragungsbereich   40 Hz … 18 kHz
Feldleerlauf-Übertragungsfaktor   12,5 mV/Pa
Nennimpedanz   150 Ω
Nennabschlussimpedanz   1000 Ω
Ersatzgeräuschpegel, A-bewertet   14 dB
Ersatzgeräuschpegel, CCIR   25 dB
Grenzschalldruckpegel   142 dB`,
    says: { '': { sensitivity: 12.5, impedance: 150, selfNoise: 14, maxSpl: 142, pattern: 'supercardioid' } },
  },
  {
    name: 'a French microphone',
    of: 'microphone',
    as: 'text',
    sheet: `Directivité : omnidirectionnelle
Sensibilité : 10,5 mV/Pa
Impédance de sortie : 75 Ω
Impédance de charge minimale : 1 kΩ
Bruit propre : 20 dB(A)
Niveau de pression acoustique maximal : 139 dB SPL
Rapport signal/bruit : 74 dB (A)`,
    says: { '': { sensitivity: 10.5, impedance: 75, selfNoise: 20, maxSpl: 139, pattern: 'omni' } },
  },
  {
    name: 'a Spanish microphone',
    of: 'microphone',
    as: 'text',
    sheet: `Patrón polar: hipercardioide
Sensibilidad: −33 dBV/Pa
Impedancia de salida: 200 Ω
Ruido propio: 11 dBA
SPL máximo: 132 dB`,
    says: { '': { sensitivity: 22.387, impedance: 200, selfNoise: 11, maxSpl: 132, pattern: 'hypercardioid' } },
  },
  {
    name: 'a microphone whose noise is told by its ratio alone',
    of: 'microphone',
    as: 'text',
    sheet: `Sensitivity: −38 dB re 1 V/Pa
Impedance: 100 Ω
S/N 80 dB (1 Pa)
Max. sound pressure level for 1 % distortion: 140 dB`,
    says: { '': { sensitivity: 12.589, impedance: 100, selfNoise: 14, maxSpl: 140 } },
  },
  {
    name: 'a microphone in one line',
    of: 'microphone',
    as: 'text',
    sheet: `Cardioid condenser. Sensitivity 8 mV/Pa, impedance 50 Ω, self-noise 18 dBA, max SPL 134 dB; 80 Hz low cut.`,
    says: { '': { sensitivity: 8, impedance: 50, selfNoise: 18, maxSpl: 134, lowCut: 80 } },
  },
  {
    name: 'a microphone with a converter of its own',
    of: 'digital microphone',
    as: 'text',
    sheet: `USB microphone, cardioid
Sensitivity −38 dBFS @ 94 dB SPL
SPL max 120 dB
Self-noise 15 dBA
Gain range 0–36 dB
Sample rate 48 kHz, 24 bit`,
    says: { '': { digitalSensitivity: -38, maxSpl: 120, selfNoise: 15, gainMin: 0, gainMax: 36 } },
  },
  {
    name: 'a table of least, typical and most',
    of: 'microphone',
    as: 'table',
    sheet: `Parameter;Min;Typ;Max;Unit
Sensitivity;13;15;17;mV/Pa
Output impedance;;150;200;Ω
Self-noise (A-weighted);;12;14;dBA
Max SPL;130;;;dB SPL`,
    says: { '': { sensitivity: 15, impedance: 150, selfNoise: 12, maxSpl: 130 } },
  },
  {
    name: 'two patterns, two sensitivities',
    of: 'microphone',
    as: 'text',
    sheet: `Sensitivity 20 mV/Pa
Impedance 200 Ω
Self-noise 10 dBA
SPL max 137 dB, 147 dB with pad
Pad 10 dB`,
    says: { '': { sensitivity: 20, impedance: 200, selfNoise: 10, maxSpl: 137 } },
  },
  {
    name: 'a preamp in plain lines',
    of: 'preamp',
    as: 'text',
    sheet: `Gain: 10–60 dB
Gain steps of 2 dB
EIN: −128.5 dBu (150 Ω, A-weighted)
Max. input level: +18 dBu at minimum gain
Max. output level: +26 dBu
Input impedance: 1k5
Output impedance: 75R
Pad: −20 dB
High-pass filter: 75 Hz, 12 dB/oct
THD+N: 0.002 % at 1 kHz
CMRR: > 80 dB`,
    says: {
      '': {
        gainMin: 10,
        gainMax: 60,
        gainStep: 2,
        ein: -128.5,
        einSource: 150,
        einWeighting: 'A',
        maxInput: 18,
        maxOutput: 26,
        inputImpedance: 1500,
        outputImpedance: 75,
        pad: 20,
        lowCut: 75,
      },
    },
  },
  {
    name: 'a German preamp, decimal commas',
    of: 'preamp',
    as: 'text',
    sheet: `Verstärkungsbereich: 6 bis 66 dB
Äquivalentes Eingangsrauschen: -127,8 dBu (20 Hz - 20 kHz, unbewertet, 200 Ω)
Maximaler Eingangspegel: +20,5 dBu bei minimaler Verstärkung
Maximaler Ausgangspegel: +24 dBu
Eingangsimpedanz: 2,2 kΩ
Ausgangsimpedanz: 47 Ω
Vordämpfung: 18 dB
Trittschallfilter: 80 Hz
Klirrfaktor: 0,003 %`,
    says: {
      '': {
        gainMin: 6,
        gainMax: 66,
        ein: -127.8,
        einSource: 200,
        einWeighting: 'Z',
        maxInput: 20.5,
        maxOutput: 24,
        inputImpedance: 2200,
        outputImpedance: 47,
        pad: 18,
        lowCut: 80,
      },
    },
  },
  {
    name: 'a French preamp',
    of: 'preamp',
    as: 'text',
    sheet: `Plage de gain : de 10 à 65 dB
Bruit équivalent en entrée : −129 dBu pondéré A (150 Ω)
Niveau d'entrée maximal : +16 dBu (gain minimum)
Niveau de sortie maximal : +22 dBu
Impédance d'entrée : 1,5 kΩ
Impédance de sortie : 150 Ω`,
    says: {
      '': {
        gainMin: 10,
        gainMax: 65,
        ein: -129,
        einSource: 150,
        einWeighting: 'A',
        maxInput: 16,
        maxOutput: 22,
        inputImpedance: 1500,
        outputImpedance: 150,
      },
    },
  },
  {
    name: 'a Spanish preamp',
    of: 'preamp',
    as: 'text',
    sheet: `Rango de ganancia: 0 a 60 dB
Ruido equivalente de entrada: −126,5 dBu, ponderación A, 150 Ω
Nivel máximo de entrada: +10 dBV
Nivel máximo de salida: +21 dBu
Impedancia de entrada: 3 kΩ
Impedancia de salida: 120 Ω`,
    says: {
      '': {
        gainMin: 0,
        gainMax: 60,
        ein: -126.5,
        einSource: 150,
        einWeighting: 'A',
        maxInput: 12.218,
        maxOutput: 21,
        inputImpedance: 3000,
        outputImpedance: 120,
      },
    },
  },
  {
    name: 'an interface in sections',
    of: 'interface',
    as: 'text',
    sheet: `Quern 4x4 audio interface

Microphone inputs
Dynamic range: 112 dB (A-weighted)
Preamp EIN: −129 dBV (A), 150 Ω
Max input level: +14 dBu (min gain)
Gain range: 56 dB
Input impedance: 3 kΩ

Line inputs
Dynamic range: 113 dB (A-weighted)
Max input level: +22 dBu (min gain)
Input impedance: 60 kΩ

Instrument inputs
Max input level: +14.5 dBu
Input impedance: 1.5 MΩ

Line outputs
Dynamic range: 118 dB (A)
Max output level: +15.5 dBu
Impedance: 430 Ω

Headphone outputs
Max output level: +11 dBu
Dynamic range: 115 dB
Impedance: < 1 Ω`,
    says: {
      'in mic': {
        dynamicRange: 112,
        ein: -126.782,
        einSource: 150,
        einWeighting: 'A',
        fullScale: 14,
        gainMax: 56,
        impedance: 3000,
      },
      'in line': { dynamicRange: 113, fullScale: 22, impedance: 60000 },
      'in instrument': { fullScale: 14.5, impedance: 1500000 },
      'out line': { dynamicRange: 118, fullScale: 15.5, impedance: 430 },
      'out headphone': { fullScale: 11, dynamicRange: 115, impedance: 1 },
    },
  },
  {
    name: 'an interface, ports beside each other',
    of: 'interface',
    as: 'text',
    sheet: `Mic in max +16 dBu   Line in max +20.5 dBu   Inst in max +12 dBu
Mic input impedance 2.4 kΩ, line input impedance 10 kΩ, Hi-Z input impedance 1M
Mic gain range 10–60 dB
EIN −128 dBu A-weighted, 150 Ω
A/D dynamic range 114 dB (A)
D/A dynamic range 117 dB (A)
Line out max +18 dBu
Headphone out max +9 dBu`,
    says: {
      'in mic': {
        fullScale: 16,
        impedance: 2400,
        gainMin: 10,
        gainMax: 60,
        ein: -128,
        einSource: 150,
        einWeighting: 'A',
        dynamicRange: 114,
      },
      'in line': { fullScale: 20.5, impedance: 10000, dynamicRange: 114 },
      'in instrument': { fullScale: 12, impedance: 1000000, dynamicRange: 114 },
      'out line': { fullScale: 18, dynamicRange: 117 },
      'out headphone': { fullScale: 9 },
    },
  },
  {
    name: 'an interface as a table of ports',
    of: 'interface',
    as: 'table',
    sheet: `Specification;Mic;Line;Instrument
Maximum input level;+9 dBu;+22 dBu;+12 dBu
Gain range;0 to 56 dB;–;0 to 40 dB
EIN (A-weighted, 150 Ω);−127 dBu;–;–
Dynamic range;110 dB;110.5 dB;109 dB
Input impedance;3 kΩ;20 kΩ;1.5 MΩ`,
    says: {
      'in mic': {
        fullScale: 9,
        gainMin: 0,
        gainMax: 56,
        ein: -127,
        einSource: 150,
        einWeighting: 'A',
        dynamicRange: 110,
        impedance: 3000,
      },
      'in line': { fullScale: 22, dynamicRange: 110.5, impedance: 20000 },
      'in instrument': { fullScale: 12, gainMin: 0, gainMax: 40, dynamicRange: 109, impedance: 1500000 },
    },
  },
  {
    name: 'a German interface',
    of: 'interface',
    as: 'text',
    sheet: `Mikrofoneingänge
Maximaler Eingangspegel: +10 dBu (minimale Verstärkung)
Verstärkungsbereich: 0 – 58 dB
Eingangsrauschen: −127 dBu (A-bew., 150 Ω)
Eingangsimpedanz: 2,7 kΩ
Dynamikumfang: 111 dB(A)
Line-Eingänge
Maximaler Eingangspegel: +21 dBu
Eingangsimpedanz: 12 kΩ
Kopfhörerausgänge
Maximaler Ausgangspegel: +8 dBu
Ausgangsimpedanz: 22 Ω`,
    says: {
      'in mic': {
        fullScale: 10,
        gainMin: 0,
        gainMax: 58,
        ein: -127,
        einSource: 150,
        einWeighting: 'A',
        impedance: 2700,
        dynamicRange: 111,
      },
      'in line': { fullScale: 21, impedance: 12000 },
      'out headphone': { fullScale: 8, impedance: 22 },
    },
  },
  {
    name: 'a DI box',
    of: 'di-box',
    as: 'text',
    sheet: `Turns ratio 10:1
Input impedance 140 kΩ
Output impedance 1.4 kΩ
Max input level +19 dBu`,
    says: { '': { ratio: 10, inputImpedance: 140000, outputImpedance: 1400, maxInput: 19 } },
  },
  {
    name: 'a preamp copied out of a web page, cells parted by tabs',
    of: 'preamp',
    as: 'table',
    sheet: `Gain\t+17 dB to +70 dB
Equivalent input noise\t−126 dBu, 22 Hz–22 kHz, unweighted, 150 Ω source
Maximum output\t+25.5 dBu
Input impedance\t2k2
Output impedance\t< 60 Ω
Frequency response\t5 Hz – 120 kHz, ± 1 dB`,
    says: {
      '': {
        gainMin: 17,
        gainMax: 70,
        ein: -126,
        einSource: 150,
        einWeighting: 'Z',
        maxOutput: 25.5,
        inputImpedance: 2200,
        outputImpedance: 60,
      },
    },
  },
  {
    name: 'a microphone: one table',
    of: 'microphone',
    as: 'html',
    sheet: `<h1>Bittern 40</h1><p>Large-diaphragm condenser microphone for voices and strings. Its finely tuned filter…</p>
<table><tr><td>Polar pattern</td><td>Wide cardioid</td></tr><tr><td>Frequency range</td><td>20 Hz – 20 kHz</td></tr>
<tr><td>Sensitivity</td><td>28 mV/Pa</td></tr><tr><td>Self-noise</td><td>7 dB-A</td></tr>
<tr><td>Maximum SPL</td><td>132 dB SPL (0.5 % THD)</td></tr><tr><td>Impedance</td><td>200 Ω</td></tr></table>`,
    says: { '': { sensitivity: 28, selfNoise: 7, maxSpl: 132, impedance: 200, pattern: 'wide-cardioid' } },
  },
  {
    name: 'a microphone: a definition list, unit in small letters',
    of: 'microphone',
    as: 'html',
    sheet: `<style>dt{float:left;width:60mm}dd small{font-size:70%}</style><h2>Technical data</h2>
<dl><dt>Sensitivity at 1 kHz</dt><dd>−38 <small>dB re 1 V/Pa</small></dd><dt>Source impedance</dt><dd>50 <small>Ω</small></dd>
<dt>Equivalent noise (A)</dt><dd>15 <small>dB</small></dd><dt>Max SPL, 1 % THD</dt><dd>138 <small>dB</small></dd></dl>`,
    says: { '': { sensitivity: 12.589, impedance: 50, selfNoise: 15, maxSpl: 138 } },
  },
  {
    name: 'a German microphone: two columns on a page',
    of: 'microphone',
    as: 'html',
    sheet: `<style>main{columns:2;column-gap:20mm}p{margin:0 0 2mm}</style><main>
<p>Empfindlichkeit: 2,5 mV/Pa</p><p>Innenwiderstand: 300 Ω</p><p>Richtcharakteristik: Niere</p><p>Arbeitsprinzip: dynamisch</p>
<p>Gewicht: 270 g</p><p>Abmessungen: 160 mm</p><p>Grenzschalldruckpegel: 150 dB</p><p>Abschlusswiderstand: 1 kΩ</p></main>`,
    says: { '': { sensitivity: 2.5, impedance: 300, pattern: 'cardioid', maxSpl: 150 } },
  },
  {
    name: 'a preamp: name, conditions, value, unit',
    of: 'preamp',
    as: 'html',
    sheet: `<table style="width:100%"><tr><th>Parameter</th><th>Conditions</th><th>Value</th><th>Unit</th></tr>
<tr><td>Maximum input level</td><td>min gain</td><td>+22</td><td>dBu</td></tr>
<tr><td>Maximum output level</td><td>600 Ω load</td><td>+27</td><td>dBu</td></tr>
<tr><td>Equivalent input noise</td><td>150 Ω, A-weighted</td><td>−130.5</td><td>dBu</td></tr>
<tr><td>Input impedance</td><td>1 kHz</td><td>2.6</td><td>kΩ</td></tr>
<tr><td>Output impedance</td><td>1 kHz</td><td>50</td><td>Ω</td></tr>
<tr><td>Gain range</td><td></td><td>8 to 68</td><td>dB</td></tr></table>`,
    says: {
      '': {
        maxInput: 22,
        maxOutput: 27,
        ein: -130.5,
        einSource: 150,
        einWeighting: 'A',
        inputImpedance: 2600,
        outputImpedance: 50,
        gainMin: 8,
        gainMax: 68,
      },
    },
  },
  {
    name: 'a preamp: sentences of a leaflet',
    of: 'preamp',
    as: 'html',
    sheet: `<p>The gain runs from 12 dB to 72 dB in steps of 3 dB.</p><p>Input impedance 1.8 kΩ. Output impedance 100 Ω.</p>
<p>It drives +24 dBu: maximum output level +24 dBu.</p><p>EIN: −127 dBu (unweighted, 20 Hz to 20 kHz, 200 Ω).</p>`,
    says: {
      '': {
        gainMin: 12,
        gainMax: 72,
        gainStep: 3,
        inputImpedance: 1800,
        outputImpedance: 100,
        maxOutput: 24,
        ein: -127,
        einSource: 200,
        einWeighting: 'Z',
      },
    },
  },
  {
    name: 'an interface: a column for each sort of port',
    of: 'interface',
    as: 'html',
    sheet: `<h1>Sluice Eight</h1><table style="width:100%"><tr><th></th><th>Mic</th><th>Line</th><th>Hi-Z</th></tr>
<tr><td>Max input level</td><td>+13 dBu</td><td>+23 dBu</td><td>+11 dBu</td></tr>
<tr><td>Dynamic range (A)</td><td>116 dB</td><td>117 dB</td><td>114 dB</td></tr>
<tr><td>Input impedance</td><td>3.2 kΩ</td><td>15 kΩ</td><td>1.2 MΩ</td></tr>
<tr><td>Gain range</td><td>0–65 dB</td><td>0–30 dB</td><td>0–45 dB</td></tr></table>`,
    says: {
      'in mic': { fullScale: 13, dynamicRange: 116, impedance: 3200, gainMin: 0, gainMax: 65 },
      'in line': { fullScale: 23, dynamicRange: 117, impedance: 15000, gainMin: 0, gainMax: 30 },
      'in instrument': { fullScale: 11, dynamicRange: 114, impedance: 1200000, gainMin: 0, gainMax: 45 },
    },
  },
  {
    name: 'an interface: headings, two pages',
    of: 'interface',
    as: 'html',
    sheet: `<h3>Mic preamps</h3><table><tr><td>Gain range</td><td>63 dB</td></tr><tr><td>EIN</td><td>−128 dBu, A-weighted, 150 Ω</td></tr>
<tr><td>Maximum input level</td><td>+12 dBu at minimum gain</td></tr></table>
<h3>Line inputs</h3><table><tr><td>Maximum input level</td><td>+24 dBu</td></tr><tr><td>Impedance</td><td>24 kΩ</td></tr></table>
<h3 style="break-before:page">Line outputs</h3><table><tr><td>Maximum output level</td><td>+20 dBu</td></tr><tr><td>Dynamic range</td><td>120 dB (A)</td></tr></table>
<h3>Headphone outputs</h3><table><tr><td>Maximum output level</td><td>+12 dBu</td></tr><tr><td>Output impedance</td><td>5 Ω</td></tr></table>`,
    says: {
      'in mic': { gainMax: 63, ein: -128, einSource: 150, einWeighting: 'A', fullScale: 12 },
      'in line': { fullScale: 24, impedance: 24000 },
      'out line': { fullScale: 20, dynamicRange: 120 },
      'out headphone': { fullScale: 12, impedance: 5 },
    },
  },
  {
    name: 'a French interface: headings and lines',
    of: 'interface',
    as: 'html',
    sheet: `<h3>Entrées micro</h3><p>Niveau d’entrée maximal : +15 dBu (gain minimum)</p><p>Plage de gain : 0 à 60 dB</p>
<p>Bruit équivalent en entrée : −128 dBu, pondéré A, 150 Ω</p><p>Impédance d’entrée : 2,2 kΩ</p>
<h3>Sorties casque</h3><p>Niveau de sortie maximal : +7 dBu</p><p>Impédance de sortie : 10 Ω</p>`,
    says: {
      'in mic': {
        fullScale: 15,
        gainMin: 0,
        gainMax: 60,
        ein: -128,
        einSource: 150,
        einWeighting: 'A',
        impedance: 2200,
      },
      'out headphone': { fullScale: 7, impedance: 10 },
    },
  },
  {
    name: 'a USB microphone',
    of: 'digital microphone',
    as: 'html',
    sheet: `<ul><li>Sensitivity: −42 dBFS at 94 dB SPL</li><li>Maximum SPL: 125 dB</li><li>Signal-to-noise ratio: 76 dB (A)</li>
<li>Gain: 0 to 30 dB</li><li>Resolution: 24 bits, 48 kHz</li></ul>`,
    says: { '': { digitalSensitivity: -42, maxSpl: 125, selfNoise: 18, gainMin: 0, gainMax: 30 } },
  },
  {
    name: 'a DI box: dots for gaps',
    of: 'di-box',
    as: 'html',
    sheet: `<p>Ratio ............................ 12:1</p><p>Input impedance ........ 100 kΩ</p>
<p>Output impedance ........ 700 Ω</p><p>Maximum input level ........ +25 dBu</p>`,
    says: { '': { ratio: 12, inputImpedance: 100000, outputImpedance: 700, maxInput: 25 } },
  },
]
