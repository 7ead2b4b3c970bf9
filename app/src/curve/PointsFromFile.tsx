import type { PressureUnit } from '@keen-bleed/contract';
import type { CurvePoint } from '@keen-bleed/core/bench';
import type { ColumnHead } from '@keen-bleed/core/trace';
import * as Comlink from 'comlink';
import { createElement, useRef, useState } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import type { TraceWorker } from '../recorded/traceWorker';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Pick } from '../ui/Pick';
import { Txt } from '../ui/Txt';

interface PointsFromFileProps {
  /** What the two ports are called. */
  from: string;
  to: string;
  onPoints: (points: readonly CurvePoint[], name: string) => void;
}

const UNITS = (['psi', 'kPa', 'bar'] as const).map((value) => ({ value, title: value }));
const isPressure = (unit: string | null | undefined): unit is PressureUnit =>
  unit === 'psi' || unit === 'kPa' || unit === 'bar';

/** The points of a curve out of a logger's file: where both ports stood still. */
export function PointsFromFile({ from, to, onPoints }: PointsFromFileProps) {
  const picker = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File | null>(null);
  const [heads, setHeads] = useState<readonly ColumnHead[]>([]);
  const [chosen, setChosen] = useState<readonly [time: string, from: string, to: string]>([
    '',
    '',
    '',
  ]);
  const [given, setGiven] = useState<PressureUnit>('psi');
  const [trouble, setTrouble] = useState<string | null>(null);
  const open = async (next: File | undefined) => {
    if (!next) return;
    setTrouble(null);
    try {
      const read = await inTrace((worker) => worker.heads(next));
      if (read.length < 3) {
        setHeads([]);
        return setTrouble('A row of heads is needed, then a column of times and two of pressures.');
      }
      const pressures = read.filter(({ unit }) => isPressure(unit));
      const [one, other] = pressures.length > 1 ? pressures : read.slice(1);
      setFile(next);
      setHeads(read);
      setChosen([read[0]!.title, one!.title, other!.title]);
    } catch {
      setTrouble('This file cannot be read.');
    }
  };
  const titles = heads.map(({ title }) => title);
  const headOf = (title: string) => heads.find((head) => head.title === title);
  const asksUnit =
    heads.length > 0 && chosen.slice(1).some((title) => !isPressure(headOf(title)?.unit));
  const take = async () => {
    const [time, ...ports] = chosen;
    if (!file || new Set(chosen).size < 3) {
      return setTrouble('Choose three columns: times, and one of pressures for each port.');
    }
    const timeUnit = headOf(time)?.unit;
    try {
      const points = await inTrace(async (worker) => {
        await worker.read(
          file,
          {
            time: titles.indexOf(time),
            timeUnit: timeUnit === 'ms' || timeUnit === 'min' ? timeUnit : 's',
            pressures: ports.map((title) => {
              const unit = headOf(title)?.unit;
              return { at: titles.indexOf(title), title, unit: isPressure(unit) ? unit : given };
            }),
          },
          Comlink.proxy(() => undefined),
        );
        return worker.points();
      });
      if (points.length < 2) {
        return setTrouble(
          'The two lines stand still together nowhere: hold each pressure for three seconds.',
        );
      }
      setTrouble(null);
      onPoints(points, file.name);
    } catch {
      setTrouble('This file cannot be read.');
    }
  };
  const pick = (n: number) => (title: string) =>
    setChosen(chosen.map((each, m) => (m === n ? title : each)) as unknown as typeof chosen);
  return (
    <View style={{ gap: space.near }}>
      {createElement('input', {
        ref: picker,
        type: 'file',
        accept: '.csv,text/csv,text/plain',
        'aria-label': 'Logger’s file of both ports',
        onChange: (event: { target: { files: FileList | null } }) =>
          void open(event.target.files?.[0]),
        style: { display: 'none' },
      })}
      <Button
        title={file?.name ?? 'From a logger’s file…'}
        label={
          file ? `Choose another file than ${file.name}` : 'Take the points from a logger’s file'
        }
        onPress={() => picker.current?.click()}
      />
      {heads.length > 0 ? (
        <View style={{ gap: space.near }}>
          <Pick label="Column of times" options={titles} value={chosen[0]} onChange={pick(0)} />
          <Pick label={`Column of ${from}`} options={titles} value={chosen[1]} onChange={pick(1)} />
          <Pick label={`Column of ${to}`} options={titles} value={chosen[2]} onChange={pick(2)} />
          {asksUnit ? (
            <Choice
              label="Pressures are in"
              note="Where a column’s head does not say."
              options={UNITS}
              value={given}
              onChange={setGiven}
            />
          ) : null}
          <Button title="Take its points" size="glove" onPress={() => void take()} />
        </View>
      ) : null}
      {trouble ? <Txt tone="fail">{trouble}</Txt> : null}
    </View>
  );
}

/** Does something in a trace's thread, and ends it. */
async function inTrace<T>(does: (worker: Comlink.Remote<TraceWorker>) => Promise<T>): Promise<T> {
  const thread = new Worker(new URL('../workers/trace.worker', window.location.href));
  try {
    const broken = new Promise<never>((_, reject) => {
      thread.onerror = () => reject(new Error('the trace’s thread cannot run here'));
    });
    return await Promise.race([does(Comlink.wrap<TraceWorker>(thread)), broken]);
  } finally {
    thread.terminate();
  }
}
