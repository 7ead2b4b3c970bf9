import type { Unit, Verdict } from '@keen-bleed/contract';
import { besideOther, judgeFigure, type BenchFigure } from '@keen-bleed/core/bench';
import { figuresOfCheck, twinChecks, type Check, type Valve } from '@keen-bleed/core/checks';
import { View } from 'react-native';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { LinkTo } from '../ui/LinkTo';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';
import { VerdictSign } from '../ui/VerdictSign';
import type { Bench } from './useBench';

interface ValveListProps {
  units: readonly Unit[];
  bench: Bench;
  /** The valve that is open beside it. */
  open: Valve | null;
  linkOf: (valve: Valve) => string;
}

/** The valves of a rig as air runs through them: what was read of each, and what it came to. */
export function ValveList({ units, bench, open, linkOf }: ValveListProps) {
  const palette = usePalette();
  const several = units.length > 1;
  return (
    <View role="list" aria-label="Valves">
      {bench.valves.map((valve) => {
        const number = units[valve.unit]?.number ?? '';
        const { read, verdict } = standingOf(valve, bench, units[valve.unit]);
        const other = unlikeOf(valve, bench, units);
        const isOpen = open?.unit === valve.unit && open.part === valve.part;
        return (
          <View key={`${valve.unit} ${valve.part}`} role="listitem">
            <Rule />
            <LinkTo
              to={linkOf(valve)}
              current={isOpen}
              style={{
                flexDirection: 'row',
                alignItems: 'center',
                gap: space.step,
                paddingVertical: space.near,
                paddingHorizontal: space.near,
                marginHorizontal: -space.near,
                ...(isOpen ? { backgroundColor: palette.raised } : {}),
              }}
            >
              <View style={{ flex: 1 }}>
                <Txt as="bodyBold">{several ? `${valve.title} · ${number}` : valve.title}</Txt>
                <Txt as="small" tone="quiet">
                  {read === 0 ? 'not read yet' : `${read} of ${valve.checks.length} read`}
                </Txt>
                {other ? <Txt as="smallBold">{`unlike the ${other}`}</Txt> : null}
              </View>
              {verdict ? <VerdictSign verdict={verdict} as="smallBold" /> : null}
            </LinkTo>
          </View>
        );
      })}
      <Rule />
    </View>
  );
}

/** The newest figures of a check; none where it was not read, or with too few points. */
function newestOf(
  check: Check,
  { readings }: Bench,
  unit: Unit | undefined,
): readonly BenchFigure[] {
  const [newest] = readings.get(check.id) ?? [];
  const figures = newest ? figuresOfCheck(check, newest.answer, unit) : null;
  return figures === null || 'wants' in figures ? [] : figures;
}

/** The valve of the same kind elsewhere on the rig beside which this one stands out, in words. */
function unlikeOf(valve: Valve, bench: Bench, units: readonly Unit[]): string | null {
  for (const check of valve.checks) {
    const own = newestOf(check, bench, units[valve.unit]);
    if (own.length === 0) continue;
    for (const twin of twinChecks(bench.valves, valve, check)) {
      const beside = besideOther(own, newestOf(twin, bench, units[twin.unit]));
      const of = bench.valves.find(
        (each) => each.unit === twin.unit && each.part === twin.part,
      )?.title;
      if (of && beside.some(({ is }) => is === 'unlike')) {
        return `${of.toLowerCase()} of ${units[twin.unit]?.number ?? ''}`;
      }
    }
  }
  return null;
}

/** The worst of what its newest readings came to. */
function standingOf(
  valve: Valve,
  bench: Bench,
  unit: Unit | undefined,
): { read: number; verdict: Verdict | null } {
  let read = 0;
  const verdicts = valve.checks.flatMap((check) => {
    if (!bench.readings.has(check.id)) return [];
    read += 1;
    return newestOf(check, bench, unit).flatMap((figure) => judgeFigure(figure) ?? []);
  });
  const verdict = (['fail', 'cant-tell', 'pass'] as const).find((each) => verdicts.includes(each));
  return { read, verdict: verdict ?? null };
}
