import type { Unit } from '@keen-bleed/contract';
import { pressuresIn, sayPressure, type RigUnderTest } from '@keen-bleed/core';
import { besideOther, type BenchFigure } from '@keen-bleed/core/bench';
import {
  figuresOfCheck,
  twinChecks,
  type Check,
  type CheckAnswer,
  type Valve,
} from '@keen-bleed/core/checks';
import { View } from 'react-native';
import { sayDay } from '../data/when';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { LinkTo } from '../ui/LinkTo';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';
import { sayBeside, sayPort } from '../curve/figureWords';
import { CurveDrawing } from '../curve/CurveDrawing';
import { bandOf } from '../curve/curveBand';
import { FigureRows } from '../curve/FigureRows';
import { madeForPsi } from '../curve/madeFor';
import { useSoundAnswers, type Bench, type Reading } from './useBench';

interface ValvePaneProps {
  rig: RigUnderTest;
  units: readonly Unit[];
  bench: Bench;
  valve: Valve;
  mayWrite: boolean;
  /** On a rig in the Bay: nothing is written down of it, and no file is read. */
  inBay?: boolean;
  onRead: (check: Check) => void;
}

/** Older ones only crowd the drawing. */
const MOST_EARLIER = 3;

/** One valve: each reading that can be made of it, what the newest came to, and how that stands beside what is like it. */
export function ValvePane({
  rig,
  units,
  bench,
  valve,
  mayWrite,
  inBay = false,
  onRead,
}: ValvePaneProps) {
  const { unit: sayIn } = usePrefs();
  const sound = useSoundAnswers(rig, valve);
  const unit = units[valve.unit];
  const record = unit?.parts?.find(({ partId }) => partId === valve.part);
  return (
    <View style={{ gap: space.gap }}>
      <View style={{ gap: space.hair }}>
        <Txt as="screenTitle" heading={2}>
          {valve.title}
        </Txt>
        <Txt tone="quiet">
          {[
            unit ? `unit ${unit.number}` : null,
            record?.setPsi === undefined
              ? 'what it is made for is not written down'
              : `made for ${sayPressure(record.setPsi, sayIn)}, read off it`,
          ]
            .filter(Boolean)
            .join(' · ')}
        </Txt>
        {unit && record?.setPsi === undefined && mayWrite && !inBay ? (
          <LinkTo to={`/unit/${unit.id}/parts`}>
            <Txt as="bodyBold" tone="accent">
              Write down what is read off it
            </Txt>
          </LinkTo>
        ) : null}
      </View>
      <View role="list" aria-label={`Readings of the ${valve.title.toLowerCase()}`}>
        {valve.checks.map((check) => (
          <View key={check.id} role="listitem">
            <Rule />
            <ReadingOf
              check={check}
              valve={valve}
              units={units}
              bench={bench}
              sound={sound?.[check.id]}
              mayWrite={mayWrite}
              inBay={inBay}
              onRead={onRead}
            />
          </View>
        ))}
        <Rule />
      </View>
      {!inBay && valve.checks.some(({ doing }) => doing.does === 'time') ? (
        <Txt as="small" tone="quiet">
          {`How fast it goes on to ${sayPressure(60, sayIn)} and off from ${sayPressure(95, sayIn)} to ${sayPressure(5, sayIn)} is timed from a recorded line, never by eye.`}
        </Txt>
      ) : null}
    </View>
  );
}

interface ReadingOfProps extends Omit<ValvePaneProps, 'rig' | 'inBay'> {
  inBay: boolean;
  check: Check;
  sound: CheckAnswer | undefined;
}

function ReadingOf({ check, valve, units, bench, sound, mayWrite, inBay, onRead }: ReadingOfProps) {
  const { unit: sayIn } = usePrefs();
  const unit = units[valve.unit];
  const frontId = units[0]?.id ?? '';
  const readings = bench.readings.get(check.id) ?? [];
  const [newest, before] = readings;
  const figures = newest ? figuresOf(check, newest.answer, unit) : null;
  const title = pressuresIn(
    check.title.replace(/^Read in against out: .*/, 'In against out'),
    sayIn,
  );
  return (
    <View style={{ gap: space.near, paddingVertical: space.step }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: space.step }}>
        <View style={{ flex: 1 }}>
          <Txt as="bodyBold" heading={3}>
            {title}
          </Txt>
          <Txt as="small" tone="quiet">
            {newest
              ? inBay
                ? 'read on this rig'
                : `read on ${sayDay(newest.atMs)}`
              : pressuresIn(`${check.state.title}. A sound one: ${check.sound}`, sayIn)}
          </Txt>
        </View>
        {mayWrite && check.doing.does === 'time' && !inBay ? (
          <LinkTo to={`/trace?for=${frontId}`} label={`${check.title}, from a logger’s file`}>
            <Txt as="bodyBold" tone="accent">
              From a file
            </Txt>
          </LinkTo>
        ) : mayWrite ? (
          <Button
            title={newest ? 'Read again' : 'Read it'}
            label={`${newest ? 'Read again' : 'Read it'}: ${pressuresIn(check.title, sayIn)}`}
            onPress={() => onRead(check)}
          />
        ) : null}
      </View>
      {newest && figures === null ? (
        <Txt as="small" tone="quiet">
          Too few points for a figure: read it again with more.
        </Txt>
      ) : null}
      {newest && figures ? (
        <>
          <FigureRows label={`Figures: ${title}`} figures={figures} unit={sayIn} />
          <Besides
            figures={figures}
            others={[
              ...(before
                ? [
                    {
                      name: inBay ? 'Beside the reading before' : `Beside ${sayDay(before.atMs)}`,
                      answer: before.answer,
                      check,
                      unit,
                    },
                  ]
                : []),
              ...twinChecks(bench.valves, valve, check).flatMap((twin) => {
                const [reading] = bench.readings.get(twin.id) ?? [];
                const of = units[twin.unit];
                const name = bench.valves.find(
                  (each) => each.unit === twin.unit && each.part === twin.part,
                )?.title;
                return reading && name
                  ? [
                      {
                        name: `Beside the ${name.toLowerCase()} of ${of?.number ?? ''}`,
                        answer: reading.answer,
                        check: twin,
                        unit: of,
                      },
                    ]
                  : [];
              }),
              ...(sound
                ? [{ name: 'Beside a sound rig like this', answer: sound, check, unit: undefined }]
                : []),
            ]}
          />
          <Drawn check={check} readings={readings} unit={unit} sound={sound} />
        </>
      ) : null}
    </View>
  );
}

/** Figures of an answer; null where it is too little for one. */
function figuresOf(
  check: Check,
  answer: CheckAnswer,
  unit: Unit | undefined,
): readonly BenchFigure[] | null {
  const figures = figuresOfCheck(check, answer, unit);
  return figures === null || 'wants' in figures ? null : figures;
}

interface Other {
  name: string;
  answer: CheckAnswer;
  check: Check;
  unit: Unit | undefined;
}

function Besides({
  figures,
  others,
}: {
  figures: readonly BenchFigure[];
  others: readonly Other[];
}) {
  const { unit: sayIn } = usePrefs();
  const said = others.flatMap(({ name, answer, check, unit }) => {
    const other = figuresOf(check, answer, unit);
    const beside = other ? besideOther(figures, other) : [];
    return beside.length === 0 ? [] : [`${name}, ${sayBeside(figures, beside, sayIn)}.`];
  });
  if (said.length === 0) return null;
  return (
    <View style={{ gap: 2 }}>
      {said.map((line) => (
        <Txt key={line} as="small">
          {line}
        </Txt>
      ))}
    </View>
  );
}

function Drawn({
  check,
  readings,
  unit,
  sound,
}: {
  check: Check;
  readings: readonly Reading[];
  unit: Unit | undefined;
  sound: CheckAnswer | undefined;
}) {
  const { unit: sayIn } = usePrefs();
  if (check.answer.kind !== 'points') return null;
  const curves = readings.flatMap(({ atMs, answer }) =>
    answer.kind === 'points' ? [{ atMs, points: answer.points }] : [],
  );
  const [newest, ...earlier] = curves;
  if (!newest || newest.points.length < 2) return null;
  const school = unit?.ports ?? 'words';
  const name = (port: string) => {
    const said = sayPort(port, school);
    return said.charAt(0).toUpperCase() + said.slice(1);
  };
  return (
    <CurveDrawing
      points={newest.points}
      earlier={earlier.slice(0, MOST_EARLIER)}
      sound={sound?.kind === 'points' ? sound.points : null}
      band={bandOf(check, madeForPsi(unit, check))}
      names={[name(check.answer.from), name(check.answer.to)]}
      unit={sayIn}
    />
  );
}
