import { EigenvalueDecomposition, Matrix, inverse, determinant } from "ml-matrix";

/**
 * The ledger's model written a second time, from docs/method.md and none of the computation's code: every reading a linear
 * function of the fractions used at the marks, with one full covariance of them all, solved by plain matrices. Full starts,
 * percents, looks at bars, bars lost, cut-offs and rest volts; one pack, one gauge, sections, no climb.
 */
export interface DenseInput {
  readonly pack: {
    readonly chemistry: string;
    readonly labelWh: number;
    readonly seriesCells?: number;
    readonly packTempC?: number;
  };
  readonly gauge?: { readonly percentStep?: number; readonly bars?: number };
  readonly cells: readonly string[];
  readonly rides: readonly {
    readonly legs: readonly { readonly miles: Readonly<Record<string, number>>; readonly section?: string }[];
    readonly readings: readonly DenseReading[];
  }[];
}

interface DenseReading {
  readonly kind: string;
  readonly mark: number;
  readonly percent?: number;
  readonly bar?: number;
  readonly bars?: number;
  readonly packVolts?: number;
  readonly restMin?: number;
}

export interface DenseAnswer {
  /** By ride. */
  readonly whPerMi: readonly number[];
  readonly whPerMiSd: readonly number[];
  readonly weights: readonly number[];
  readonly difference: { readonly mean: number; readonly sd: number };
}

const Q = [0, 0.05, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1];
const VOLTS = [3.0, 3.27, 3.4, 3.52, 3.59, 3.65, 3.72, 3.82, 3.9, 3.97, 4.06, 4.2];
const TEMPS = [-20, -10, 0, 10, 25];
const FACTORS = [0.62, 0.78, 0.88, 0.95, 1];
const SCALES = [0.5, 0.71, 1, 1.41, 2, 2.83, 4, 5.66, 8];

function line(xs: readonly number[], ys: readonly number[], x: number): number {
  if (x <= xs[0]!) return ys[0]!;
  for (let i = 1; i < xs.length; i += 1)
    if (x <= xs[i]!) return ys[i - 1]! + ((ys[i]! - ys[i - 1]!) * (x - xs[i - 1]!)) / (xs[i]! - xs[i - 1]!);
  return ys.at(-1)!;
}

/** Energy under the volts up to a charge, by small steps' exact trapezoids. */
function energyTo(q: number): number {
  let sum = 0;
  for (let i = 1; i < Q.length; i += 1) {
    const to = Math.min(q, Q[i]!);
    if (to > Q[i - 1]!) sum += (to - Q[i - 1]!) * line(Q, VOLTS, (to + Q[i - 1]!) / 2);
  }
  return sum;
}
const WHOLE = energyTo(1);
const usedAt = (q: number) => 1 - energyTo(q) / WHOLE;
const chargeAtVolts = (volts: number) => line(VOLTS, Q, volts);

/** What one reading says: fraction at its mark plus coefficients of shared normals equals a value, with its own variance. */
interface Said {
  readonly column: number;
  readonly value: number;
  readonly own: number;
  readonly shared: ReadonlyMap<string, number>;
  readonly slow: { readonly of: string; readonly f: number } | null;
}

function say(reading: DenseReading, column: number, input: DenseInput): Said {
  const { pack, gauge = {} } = input;
  const none = new Map<string, number>();
  const temp = pack.packTempC ?? 20;
  switch (reading.kind) {
    case "fullStart":
      return { column, value: 0, own: 0.01 ** 2, shared: none, slow: null };
    case "cutOff":
      return { column, value: 1, own: 0.015 ** 2, shared: none, slow: null };
    case "percent": {
      const q = reading.percent! / 100;
      const f = usedAt(q);
      const slope = line(Q, VOLTS, q) / WHOLE;
      const low = q <= 0.1 ? 0.25 * q * slope : 0;
      const own = (((gauge.percentStep ?? 1) / 100) ** 2 / 12 + 0.01 ** 2) * slope ** 2 + low ** 2;
      const lost = Math.max(0, 1 - line(TEMPS, FACTORS, temp) / line(TEMPS, FACTORS, 20));
      // Known of the cold: half of it, give or take 0.4, of what a warm count leaves out.
      const cold = (f * lost) / (1 - lost);
      return {
        column,
        value: f + low + 0.5 * cold,
        own,
        shared: new Map([["scale", 0.03 * f], ["cold", 0.4 * cold]]), // prettier-ignore
        slow: { of: "gauge", f },
      };
    }
    case "barLost":
    case "bars": {
      const n = gauge.bars!;
      const shared = new Map<string, number>();
      const edge = (bar: number, by: number) => {
        const at = 1 - (bar - 1) / n;
        for (const [key, part] of [
          [`bar ${bar}`, 0.3 / n],
          ["shift", 0.05],
          ["bow", 0.08 * 4 * at * (1 - at)],
        ] as const)
          // prettier-ignore
          shared.set(key, (shared.get(key) ?? 0) - by * part);
        return by * at;
      };
      if (reading.kind === "barLost")
        return { column, value: edge(reading.bar!, 1), own: 0.02 ** 2, shared, slow: null };
      const k = reading.bars!;
      const upper = k + 1 <= n ? edge(k + 1, 0.5) : 0;
      const lower = k >= 2 ? edge(k, 0.5) : 0.5;
      return { column, value: upper + lower, own: (1 / n) ** 2 / 12, shared, slow: null };
    }
    case "restVolts": {
      const cell = reading.packVolts! / pack.seriesCells!;
      const rest = (reading.restMin ?? 0) >= 10 ? 0.005 : 0.02;
      const sd = Math.sqrt(rest ** 2 + (0.1 / Math.sqrt(12) / pack.seriesCells!) ** 2 + 0.008 ** 2);
      const held = Math.min(4.2, Math.max(3, cell));
      const [low, high] = [Math.max(3, held - sd), Math.min(4.2, held + sd)];
      const f = (volts: number) => usedAt(chargeAtVolts(volts));
      const spread = (sd * (f(low) - f(high))) / (high - low);
      return { column, value: f(held), own: spread ** 2, shared: none, slow: { of: "curve", f: f(held) } };
    }
    default:
      throw new Error(`the independent model has no ${reading.kind}`);
  }
}

/** Prior mean and covariance of the fractions used at all marks, under one scale of the road's scatter. */
function roadPrior(input: DenseInput, capacity: number, scale: number) {
  const starts: number[] = [];
  let marks = 0;
  for (const { legs } of input.rides) {
    starts.push(marks);
    marks += legs.length + 1;
  }
  // Every mark is its start plus rates x miles plus scatters: sums of independent normals.
  const sources = new Map<string, number>();
  const place = (key: string) => sources.get(key) ?? (sources.set(key, sources.size), sources.size - 1);
  const loads: Map<number, number>[] = Array.from({ length: marks }, () => new Map());
  const mean = new Array<number>(marks).fill(0);
  const runs = new Map<string, number>();
  for (const { legs } of input.rides)
    for (const { section } of legs) if (section) runs.set(section, (runs.get(section) ?? 0) + 1);
  input.rides.forEach(({ legs }, r) => {
    const first = starts[r]!;
    loads[first]!.set(place(`start ${r}`), 1);
    mean[first] = 0.5;
    const seen = new Map<string, number>();
    legs.forEach(({ miles, section }, i) => {
      const load = new Map(loads[first + i]!);
      let more = 0;
      const total = Object.values(miles).reduce((a, b) => a + b, 0);
      const sd = (scale * 0.25 * 15 * Math.sqrt(Math.max(0.01, total))) / capacity;
      const isRun = section !== undefined && runs.get(section)! > 1;
      const order = isRun ? (seen.get(section) ?? 0) : 0;
      if (isRun) seen.set(section, order + 1);
      Object.entries(miles).forEach(([cell, each], part) => {
        more += (each * 15) / capacity;
        const rate = place(`rate ${cell}`);
        load.set(rate, (load.get(rate) ?? 0) + (each * 15) / capacity);
        if (isRun) {
          const shared = place(`section ${section}/${order}/${part}`);
          load.set(shared, (load.get(shared) ?? 0) + sd * Math.sqrt((0.7 * each) / total));
        }
      });
      load.set(place(`scatter ${r} ${i}`), sd * Math.sqrt(isRun ? 0.3 : 1));
      loads[first + i + 1] = load;
      mean[first + i + 1] = mean[first + i]! + more;
    });
  });
  const b = Matrix.zeros(marks, sources.size);
  loads.forEach((load, mark) => load.forEach((by, source) => b.set(mark, source, by)));
  return { mean: Matrix.columnVector(mean), covariance: b.mmul(b.transpose()), starts };
}

/** Two dozen readings at most: their determinant by its eigenvalues, which no small variance drowns. */
const logDet = (matrix: Matrix) =>
  matrix.rows > 12
    ? new EigenvalueDecomposition(matrix).realEigenvalues.reduce((sum, each) => sum + Math.log(each), 0)
    : Math.log(determinant(matrix));

/** Solves it: the mixture over the scales of the scatter, each by the textbook's conditional normal. */
export function denseLedger(input: DenseInput): DenseAnswer {
  const temp = input.pack.packTempC ?? 20;
  const factor = line(TEMPS, FACTORS, temp);
  const capacity = input.pack.labelWh * 0.93 * factor;
  const capacitySd = capacity * Math.hypot(0.066, (0.4 * (1 - factor)) / factor);
  const { starts } = roadPrior(input, capacity, 1);
  const said = input.rides.flatMap(({ readings }, r) =>
    readings.map((reading) => say(reading, starts[r]! + reading.mark, input)),
  );
  const n = said.length;
  const noise = Matrix.zeros(n, n);
  said.forEach((a, i) =>
    said.forEach((b, j) => {
      let sum = i === j ? a.own : 0;
      a.shared.forEach((by, key) => {
        sum += by * (b.shared.get(key) ?? 0);
      });
      if (a.slow && b.slow?.of === a.slow.of)
        sum += 0.02 ** 2 * Math.exp(-((a.slow.f - b.slow.f) ** 2) / (2 * 0.2 ** 2));
      noise.set(i, j, sum);
    }),
  );
  const told = SCALES.map((scale) => {
    const { mean, covariance } = roadPrior(input, capacity, scale);
    const pick = Matrix.zeros(n, mean.rows);
    said.forEach(({ column }, i) => pick.set(i, column, 1));
    const v = Matrix.add(pick.mmul(covariance).mmul(pick.transpose()), noise);
    const off = Matrix.sub(Matrix.columnVector(said.map(({ value }) => value)), pick.mmul(mean));
    const solved = inverse(v);
    const gain = covariance.mmul(pick.transpose()).mmul(solved);
    const chi2 = off.transpose().mmul(solved).mmul(off).get(0, 0);
    return {
      mean: Matrix.add(mean, gain.mmul(off)),
      covariance: Matrix.sub(covariance, gain.mmul(pick).mmul(covariance)),
      log: -(chi2 + logDet(v)) / 2 - 0.5 * (Math.log(scale) / 0.7) ** 2,
    };
  });
  const best = Math.max(...told.map(({ log }) => log));
  const sum = told.reduce((total, { log }) => total + Math.exp(log - best), 0);
  const weights = told.map(({ log }) => Math.exp(log - best) / sum);
  /** Mean and sd of C x a form of the fractions; nothing here tells more of C than the pack's own prior. */
  const figure = (form: Matrix) => {
    const means = told.map(({ mean }) => form.mmul(mean).get(0, 0));
    const middle = means.reduce((total, each, s) => total + weights[s]! * each, 0);
    const variance = told.reduce((total, { covariance }, s) => {
      const within = form.mmul(covariance).mmul(form.transpose()).get(0, 0);
      return total + weights[s]! * (within + (means[s]! - middle) ** 2);
    }, 0);
    return { mean: capacity * middle, sd: Math.hypot(capacity * Math.sqrt(variance), capacitySd * middle) };
  };
  const forms = input.rides.map(({ legs }, r) => {
    const miles = legs.reduce((total, leg) => total + Object.values(leg.miles).reduce((a, b) => a + b, 0), 0);
    const form = Matrix.zeros(1, told[0]!.mean.rows);
    form.set(0, starts[r]!, -1 / miles);
    form.set(0, starts[r]! + legs.length, 1 / miles);
    return form;
  });
  const figures = forms.map(figure);
  return {
    whPerMi: figures.map(({ mean }) => mean),
    whPerMiSd: figures.map(({ sd }) => sd),
    weights,
    difference: figure(forms.length > 1 ? Matrix.sub(forms[0]!, forms[1]!) : forms[0]!),
  };
}
