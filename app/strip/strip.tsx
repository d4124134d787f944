import { useEffect, useRef, useState } from "react";
import { fixed, formatBare, formatQuantity, fromSi, plusOrMinus, toSi, unitOf } from "#core/quantities";
import { readingName, type ReadingKindName } from "#core/readings";
import type { DrawnReading } from "#core/results";
import { ReadingShape } from "#ui/readingShape";
import { useSystem } from "#ui/system";
import { groundLetter, GroundPatterns, groundFill } from "./groundPatterns";
import type { StripResults } from "./view";
import { stepsCovering, stepsWithin, useWidth } from "./scale";

const LEFT = 74;
const RIGHT = 14;
/** Room inside the axes, so that the first and last readings clear the figures. */
const INSET = 12;
const GROUND = { top: 8, height: 18 };
const LEVEL = { top: 40, height: 26 };
const CHARGE = { top: 86, height: 236 };
const USE = { top: 352, height: 84 };
const AXIS = 446;
const HEIGHT = 480;
const CHARGE_TICKS = [100, 80, 60, 40, 20, 0];

interface StripProps {
  readonly results: StripResults;
  /** Bike's levels, least first: how high each band is drawn. */
  readonly levels: readonly string[];
  /** Called with the reading under the cursor when x is pressed. */
  readonly onSetAside: (reading: DrawnReading) => void;
}

/** Height of a level's band, 0..1, and whether it is hatched as throttle. */
function bandOf(
  level: string,
  levels: readonly string[],
): { readonly share: number; readonly throttle: boolean } {
  if (level === "throttle") return { share: 1, throttle: true };
  const at = levels.indexOf(level);
  return { share: at < 0 ? 0.5 : (at + 1) / levels.length, throttle: false };
}

/** The paper strip: everything known of the ride at its mile. */
export function Strip({ results, levels, onSetAside }: StripProps) {
  const system = useSystem();
  const frame = useRef<HTMLDivElement>(null);
  const width = useWidth(frame, 760);
  const { curve, stretches, readings, flags, legs, markM } = results;
  const [cursor, setCursor] = useState<number | null>(null);
  const first = curve[0]!.distanceM;
  const last = curve.at(-1)!.distanceM;
  const x = (metres: number) =>
    LEFT + INSET + ((metres - first) / (last - first)) * (width - LEFT - RIGHT - 2 * INSET);
  const charge = (used: number) => CHARGE.top + Math.min(1.04, Math.max(-0.04, used)) * CHARGE.height;
  const most = Math.max(...stretches.map(({ whPerM }) => whPerM.mean + whPerM.sd), 0);
  const useUnit = unitOf("energyPerDistance", system);
  const useSteps = stepsCovering(fromSi(most, "energyPerDistance", useUnit), 3);
  const useTop = toSi(useSteps.at(-1)!, "energyPerDistance", useUnit)!;
  const use = (whPerM: number) =>
    USE.top + USE.height - (Math.min(useTop, Math.max(0, whPerM)) / useTop) * USE.height;
  const questioned = new Set(flags.map(({ rootId, field }) => `${rootId}/${field ?? ""}`));
  const isQuestioned = (reading: DrawnReading) => questioned.has(`${reading.rootId}/${reading.field ?? ""}`);
  const kinds = [...new Set(readings.filter(({ says }) => says).map(({ kind }) => kind))];

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(event.target.tagName))
        return;
      if (event.key === "ArrowRight") setCursor((at) => Math.min(curve.length - 1, at === null ? 0 : at + 1));
      else if (event.key === "ArrowLeft")
        setCursor((at) => Math.max(0, at === null ? curve.length - 1 : at - 1));
      else if (event.key === "x" && cursor !== null) {
        const here = readings
          .filter(({ mark }) => mark === cursor)
          .sort((a, b) => Math.abs(b.standing ?? 9) - Math.abs(a.standing ?? 9));
        if (here[0]) onSetAside(here[0]);
      } else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [cursor, curve.length, readings, onSetAside]);

  const band = [
    ...curve.map(({ distanceM, used }) => `${x(distanceM)},${charge(used.mean - plusOrMinus(used))}`),
    ...[...curve]
      .reverse()
      .map(({ distanceM, used }) => `${x(distanceM)},${charge(used.mean + plusOrMinus(used))}`),
  ].join(" ");
  const miles = stepsWithin(
    fromSi(first, "distance", unitOf("distance", system)),
    fromSi(last, "distance", unitOf("distance", system)),
    Math.max(3, Math.floor(width / 110)),
  );
  const flag = flags[0];
  const flagged = flag && readings.find((reading) => isQuestioned(reading) && reading.rootId === flag.rootId);
  const point = cursor === null ? null : curve[cursor]!;
  const leg = cursor === null ? null : (legs[Math.min(cursor, legs.length - 1)] ?? null);
  const here = cursor === null ? [] : readings.filter(({ mark }) => mark === cursor);

  return (
    <div ref={frame} className="min-w-0">
      <div
        className="sheet mb-2 flex min-h-10 flex-wrap items-center gap-x-5 gap-y-1 px-3 py-1.5 text-sm"
        aria-live="polite"
      >
        {point ? (
          <>
            <span>
              {unitOf("distance", system) === "mi" ? "mile" : "km"}{" "}
              <b>{formatBare(point.distanceM, "distance", system)}</b>
            </span>
            <span>
              energy left <b>{fixed((1 - point.used.mean) * 100, 0)}</b> ±{" "}
              {fixed(plusOrMinus(point.used) * 100, 0)} %
            </span>
            {leg ? (
              <span>
                level <b>{leg.level}</b>, {leg.ground}
              </span>
            ) : null}
            <span className="text-quiet">
              {here.map(({ text, struck }) => (struck ? `${text} (set aside)` : text)).join(", ")}
            </span>
          </>
        ) : (
          <span className="text-quiet">
            Point at the strip, or press ← and → to go from mark to mark; x sets a reading aside.
          </span>
        )}
      </div>
      <svg
        width={width}
        height={HEIGHT}
        viewBox={`0 0 ${width} ${HEIGHT}`}
        role="img"
        aria-label={`Strip over ${formatQuantity(last - first, "distance", system)}: energy left falls from ${fixed((1 - curve[0]!.used.mean) * 100, 0)} to ${fixed((1 - curve.at(-1)!.used.mean) * 100, 0)} percent. The readings table below holds every figure.`}
        onPointerMove={(event) => {
          const at = event.clientX - event.currentTarget.getBoundingClientRect().left;
          let nearest = 0;
          curve.forEach(({ distanceM }, i) => {
            if (Math.abs(x(distanceM) - at) < Math.abs(x(curve[nearest]!.distanceM) - at)) nearest = i;
          });
          setCursor(nearest);
        }}
        onPointerLeave={() => setCursor(null)}
        className="block text-ink"
        fontSize={13}
        fill="currentColor"
      >
        <GroundPatterns />
        <g fontWeight={650}>
          <text x={0} y={GROUND.top + 14}>
            Ground
          </text>
          <text x={0} y={LEVEL.top + 18}>
            Level
          </text>
          <text x={0} y={CHARGE.top + 30}>
            Energy
          </text>
          <text x={0} y={CHARGE.top + 47}>
            left
          </text>
          <text x={0} y={USE.top + 14}>
            Use
          </text>
        </g>
        <g fill="var(--color-quiet)">
          <text x={0} y={CHARGE.top + 64}>
            %
          </text>
          <text x={0} y={USE.top + 31}>
            {useUnit}
          </text>
          {results.climbM === null ? null : (
            <text x={0} y={GROUND.top + 29}>
              +{formatQuantity(results.climbM, "climb", system)}
            </text>
          )}
        </g>

        {legs.map((each) => {
          const [from, to] = [x(markM[each.from]!), x(markM[each.to]!)];
          const { share, throttle } = bandOf(each.level, levels);
          const before = legs[each.from - 1];
          const wide = to - from;
          return (
            <g key={each.from}>
              <rect
                x={from}
                y={GROUND.top}
                width={Math.max(0, wide)}
                height={GROUND.height}
                fill={groundFill(each.ground)}
                stroke="var(--color-rule)"
              />
              {before?.ground !== each.ground && wide > 10 ? (
                <g>
                  <rect x={from + 2} y={GROUND.top + 2} width={14} height={14} fill="var(--color-bone)" />
                  <text x={from + 4} y={GROUND.top + 14} fontSize={12}>
                    {groundLetter(each.ground)}
                  </text>
                </g>
              ) : null}
              <rect
                x={from}
                y={LEVEL.top + LEVEL.height * (1 - share)}
                width={Math.max(0, wide)}
                height={LEVEL.height * share}
                fill={throttle ? "url(#throttle)" : "var(--color-spruce)"}
                fillOpacity={throttle ? 1 : 0.35 + 0.65 * share}
              />
              {before?.level !== each.level && wide > 34 ? (
                <text x={from + 4} y={LEVEL.top + LEVEL.height + 12} fontSize={12} fill="var(--color-quiet)">
                  {each.level}
                </text>
              ) : null}
            </g>
          );
        })}

        {CHARGE_TICKS.map((tick) => (
          <g key={tick}>
            <path d={`M${LEFT} ${charge(1 - tick / 100)}H${width - RIGHT}`} stroke="var(--color-rule)" />
            <text x={LEFT - 8} y={charge(1 - tick / 100) + 4} textAnchor="end" fill="var(--color-quiet)">
              {tick}
            </text>
          </g>
        ))}
        <polygon points={band} fill="var(--color-spruce)" fillOpacity={0.16} />
        <polyline
          points={curve.map(({ distanceM, used }) => `${x(distanceM)},${charge(used.mean)}`).join(" ")}
          fill="none"
          stroke="var(--color-spruce)"
          strokeWidth={2.2}
        />

        {useSteps.map((step) => (
          <g key={step}>
            <path
              d={`M${LEFT} ${use(toSi(step, "energyPerDistance", useUnit)!)}H${width - RIGHT}`}
              stroke="var(--color-rule)"
            />
            <text
              x={LEFT - 8}
              y={use(toSi(step, "energyPerDistance", useUnit)!) + 4}
              textAnchor="end"
              fill="var(--color-quiet)"
            >
              {step}
            </text>
          </g>
        ))}
        {stretches.map(({ fromM, toM, level, whPerM }) => {
          const wide = Math.max(1, x(toM) - x(fromM) - 2);
          const middle = x(fromM) + 1 + wide / 2;
          const { share, throttle } = bandOf(level, levels);
          const [low, high] = [
            use(whPerM.mean - plusOrMinus(whPerM)),
            use(whPerM.mean + plusOrMinus(whPerM)),
          ];
          return (
            <g key={fromM}>
              <rect
                x={x(fromM) + 1}
                y={use(whPerM.mean)}
                width={wide}
                height={USE.top + USE.height - use(whPerM.mean)}
                fill={throttle ? "url(#throttle)" : "var(--color-spruce)"}
                fillOpacity={throttle ? 1 : 0.25 + 0.6 * share}
              />
              {wide > 8 ? (
                <path
                  d={`M${middle - 3} ${low}H${middle + 3}M${middle - 3} ${high}H${middle + 3}M${middle} ${low}V${high}`}
                  stroke="var(--color-ink)"
                  fill="none"
                />
              ) : null}
            </g>
          );
        })}

        <path d={`M${LEFT} ${AXIS}H${width - RIGHT}`} stroke="var(--color-ink)" />
        {miles.map((mile) => {
          const at = x(toSi(mile, "distance", unitOf("distance", system))!);
          return (
            <g key={mile}>
              <path d={`M${at} ${AXIS}v6`} stroke="var(--color-ink)" />
              <text x={at} y={AXIS + 20} textAnchor="middle">
                {mile}
              </text>
            </g>
          );
        })}
        <text x={0} y={AXIS + 20} fontWeight={650}>
          {system === "imperial" ? "Miles" : "Kilometres"}
        </text>

        {point ? (
          <path
            d={`M${x(point.distanceM)} ${GROUND.top}V${AXIS}`}
            stroke="var(--color-ochre-fill)"
            strokeWidth={1.5}
            strokeDasharray="3 3"
          />
        ) : null}
        {readings.map((reading) =>
          reading.says ? (
            <ReadingShape
              key={`${reading.rootId}/${reading.field ?? reading.kind}`}
              kind={reading.kind}
              x={x(reading.distanceM)}
              y={charge(reading.says.mean)}
              hollow={reading.struck || isQuestioned(reading)}
              colour={
                reading.struck || isQuestioned(reading) ? "var(--color-ochre-fill)" : "var(--color-ink)"
              }
            />
          ) : null,
        )}
        {flagged?.says && flag ? (
          <text
            x={x(flagged.distanceM) + (x(flagged.distanceM) > width * 0.6 ? -12 : 12)}
            y={charge(flagged.says.mean) - 10}
            textAnchor={x(flagged.distanceM) > width * 0.6 ? "end" : "start"}
            fontStyle="italic"
            fill="var(--color-ochre)"
          >
            {flagged.text}: in question
          </text>
        ) : null}
      </svg>
      <ul className="flex flex-wrap gap-x-4 gap-y-1 pl-[74px] text-sm text-quiet" aria-label="Shapes">
        {kinds.map((kind) => (
          <li key={kind} className="flex items-center gap-1.5">
            <svg width={18} height={20} aria-hidden>
              <ReadingShape kind={kind} x={9} y={10} />
            </svg>
            {readingName(kind as ReadingKindName)}
          </li>
        ))}
        <li className="flex items-center gap-1.5">
          <svg width={18} height={20} aria-hidden>
            <ReadingShape kind="percent" x={9} y={10} hollow colour="var(--color-ochre-fill)" />
          </svg>
          in question or set aside
        </li>
      </ul>
    </div>
  );
}
