import type { PressureUnit } from '@keen-bleed/contract';
import type { ColumnHead } from '@keen-bleed/core/trace';
import { useState } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Pick } from '../ui/Pick';
import { Toggle } from '../ui/Toggle';
import { Txt } from '../ui/Txt';
import type { TraceColumns } from '../recorded/traceWorker';

const TIME_UNITS = [
  { value: 's', title: 's' },
  { value: 'ms', title: 'ms' },
  { value: 'min', title: 'min' },
] as const;
const PRESSURE_UNITS = [
  { value: 'psi', title: 'psi' },
  { value: 'kPa', title: 'kPa' },
  { value: 'bar', title: 'bar' },
] as const;

const pressureUnitOf = (head: ColumnHead | undefined): PressureUnit | null =>
  head?.unit === 'psi' || head?.unit === 'kPa' || head?.unit === 'bar' ? head.unit : null;
const timeUnitOf = (head: ColumnHead | undefined): TraceColumns['timeUnit'] | null =>
  head?.unit === 's' || head?.unit === 'ms' || head?.unit === 'min' ? head.unit : null;

interface WhichColumnsProps {
  heads: readonly ColumnHead[];
  onRead: (columns: TraceColumns) => void;
}

/** Asks for the columns, and for the units where the heads do not say. */
export function WhichColumns({ heads, onRead }: WhichColumnsProps) {
  const titles = heads.map(({ title }) => title);
  const firstPressure = Math.max(
    1,
    heads.findIndex((head) => pressureUnitOf(head) !== null),
  );
  const [time, setTime] = useState(titles[0] ?? '');
  const [tank, setTank] = useState(titles[firstPressure] ?? titles[1] ?? '');
  const [timeUnit, setTimeUnit] = useState<TraceColumns['timeUnit']>('s');
  const [pressureUnit, setPressureUnit] = useState<PressureUnit>('psi');
  const [beside, setBeside] = useState<ReadonlySet<string>>(
    new Set(titles.filter((_, i) => pressureUnitOf(heads[i]) !== null)),
  );
  const headOf = (title: string) => heads[titles.indexOf(title)];
  const saidTime = timeUnitOf(headOf(time));
  // A column of times is no column of pressures.
  const candidates = titles.filter((title) => title !== time);
  const pressure = candidates.includes(tank) ? tank : (candidates[0] ?? '');
  const others = candidates.filter((title) => title !== pressure);
  const chosen = [pressure, ...others.filter((title) => beside.has(title))];
  const asksUnit = chosen.some((title) => pressureUnitOf(headOf(title)) === null);
  return (
    <View style={{ gap: space.step }}>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.step }}>
        <Pick label="Column of times" options={titles} value={time} onChange={setTime} />
        <Pick
          label="Column of pressures"
          options={candidates}
          value={pressure}
          onChange={setTank}
        />
      </View>
      {others.length > 0 ? (
        <View role="group" aria-label="Read beside it" style={{ gap: space.hair }}>
          <Txt as="smallBold">Read beside it</Txt>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: space.gap }}>
            {others.map((title) => (
              <Toggle
                key={title}
                label={title}
                value={beside.has(title)}
                onChange={(on) => {
                  const next = new Set(beside);
                  if (on) next.add(title);
                  else next.delete(title);
                  setBeside(next);
                }}
              />
            ))}
          </View>
        </View>
      ) : null}
      {saidTime ? null : (
        <Choice
          label="Times are in"
          note="Dates count as seconds."
          options={TIME_UNITS}
          value={timeUnit}
          onChange={setTimeUnit}
        />
      )}
      {asksUnit ? (
        <Choice
          label="Pressures are in"
          note="Where a column’s head does not say."
          options={PRESSURE_UNITS}
          value={pressureUnit}
          onChange={setPressureUnit}
        />
      ) : null}
      <Button
        title="Read it"
        manner="main"
        size="glove"
        style={{ alignSelf: 'flex-start', minWidth: 160 }}
        onPress={() =>
          onRead({
            time: titles.indexOf(time),
            timeUnit: saidTime ?? timeUnit,
            pressures: chosen.map((title) => ({
              at: titles.indexOf(title),
              title,
              unit: pressureUnitOf(headOf(title)) ?? pressureUnit,
            })),
          })
        }
      />
    </View>
  );
}
