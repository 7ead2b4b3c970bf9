import type { PressureUnit } from '@keen-bleed/contract';
import { ruleSetFor, unitTitle } from '@keen-bleed/core';
import type { ColumnHead, Segment } from '@keen-bleed/core/trace';
import * as Comlink from 'comlink';
import { router } from 'expo-router';
import { createElement, useEffect, useMemo, useRef, useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { useRuleSets, useUnits } from '../data/useRecords';
import { usePrefs } from '../prefs/prefs';
import { useBoxSize } from '../run/useBoxSize';
import { runFromTrace } from '../store/runFromTrace';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { Pick } from '../ui/Pick';
import { Screen } from '../ui/Screen';
import { Segments } from '../ui/Segments';
import { Txt } from '../ui/Txt';
import { SegmentList } from './SegmentList';
import { TraceChart } from './TraceChart';
import type { DrawnPoint, TraceColumns, TraceFound, TraceWorker } from './traceWorker';

const UNREADABLE =
  'Nothing could be read in those columns. Choose the column of times and one of pressures.';

/** A recorded curve: read from a logger's file, taken apart, and made into a run if wanted. */
export function TraceScreen() {
  const worker = useTraceWorker();
  const picker = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File | null>(null);
  const [heads, setHeads] = useState<ColumnHead[]>([]);
  const [progress, setProgress] = useState<number | null>(null);
  const [found, setFound] = useState<TraceFound | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);

  const take = async (chosen: File | undefined) => {
    if (!chosen) return;
    setFile(chosen);
    setFound(null);
    setTrouble(null);
    try {
      const read = await worker.heads(chosen);
      setHeads(read);
      if (read.length < 2) {
        setTrouble('This file has no columns: a row of heads is needed, then times and pressures.');
      }
    } catch {
      setTrouble('This file cannot be read.');
    }
  };
  const read = async (columns: TraceColumns) => {
    if (!file) return;
    setTrouble(null);
    setProgress(0);
    try {
      const all = await worker.read(file, columns, Comlink.proxy(setProgress));
      if (all.rows < 8) setTrouble(UNREADABLE);
      else setFound(all);
    } catch {
      setTrouble('This file cannot be read.');
    }
    setProgress(null);
  };
  return (
    <Screen title="Trace" lead="A logger’s file: what a run knows is found in it.">
      <View style={{ gap: space.gap, marginTop: space.step }}>
        <View style={{ gap: space.hair }}>
          <Txt as="smallBold">Logger’s file (CSV)</Txt>
          {createElement('input', {
            ref: picker,
            type: 'file',
            accept: '.csv,text/csv,text/plain',
            'aria-label': 'Logger’s file',
            onChange: (event: { target: { files: FileList | null } }) =>
              void take(event.target.files?.[0]),
            style: { display: 'none' },
          })}
          <Button
            title={file?.name ?? 'Choose a file'}
            label={file ? `Choose another file than ${file.name}` : 'Choose a logger’s file'}
            size="glove"
            onPress={() => picker.current?.click()}
            style={{ alignSelf: 'flex-start', minWidth: 160 }}
          />
        </View>
        {trouble ? <Notice manner="trouble" title={trouble} /> : null}
        {heads.length > 1 ? (
          <Columns heads={heads} onRead={(columns) => void read(columns)} />
        ) : null}
        {progress !== null ? (
          <Txt live="polite">{`reading, ${Math.round(progress * 100)} %`}</Txt>
        ) : null}
        {found ? <Found found={found} worker={worker} file={file} /> : null}
      </View>
    </Screen>
  );
}

function useTraceWorker(): Comlink.Remote<TraceWorker> {
  const [{ thread, remote }] = useState(() => {
    const made = new Worker(new URL('../workers/trace.worker', window.location.href));
    return { thread: made, remote: Comlink.wrap<TraceWorker>(made) };
  });
  useEffect(() => () => thread.terminate(), [thread]);
  return remote;
}

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

/** Asks for the columns, and for the units where the heads do not say. */
function Columns({
  heads,
  onRead,
}: {
  heads: readonly ColumnHead[];
  onRead: (columns: TraceColumns) => void;
}) {
  const titles = heads.map((head, i) => head.title || `column ${i + 1}`);
  const isPressure = (head: ColumnHead | undefined) =>
    head?.unit === 'psi' || head?.unit === 'kPa' || head?.unit === 'bar';
  const firstPressure = Math.max(1, heads.findIndex(isPressure));
  const [time, setTime] = useState(titles[0] ?? '');
  const [pressure, setPressure] = useState(titles[firstPressure] ?? titles[1] ?? '');
  const [timeUnit, setTimeUnit] = useState<'s' | 'ms' | 'min' | null>(null);
  const [pressureUnit, setPressureUnit] = useState<PressureUnit | null>(null);
  const timeHead = heads[titles.indexOf(time)];
  const pressureHead = heads[titles.indexOf(pressure)];
  const saidTime =
    timeHead?.unit === 's' || timeHead?.unit === 'ms' || timeHead?.unit === 'min'
      ? timeHead.unit
      : null;
  const saidPressure = isPressure(pressureHead) ? (pressureHead?.unit as PressureUnit) : null;
  return (
    <View style={{ gap: space.step }}>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.step }}>
        <Pick label="Column of times" options={titles} value={time} onChange={setTime} />
        <Pick
          label="Column of pressures"
          options={titles}
          value={pressure}
          onChange={setPressure}
        />
      </View>
      {saidTime ? null : (
        <View style={{ gap: space.hair }}>
          <Txt as="smallBold">Times are in (dates count as s)</Txt>
          <Segments
            label="Times are in"
            options={TIME_UNITS}
            value={timeUnit ?? 's'}
            onChange={setTimeUnit}
          />
        </View>
      )}
      {saidPressure ? null : (
        <View style={{ gap: space.hair }}>
          <Txt as="smallBold">Pressures are in</Txt>
          <Segments
            label="Pressures are in"
            options={PRESSURE_UNITS}
            value={pressureUnit ?? 'psi'}
            onChange={setPressureUnit}
          />
        </View>
      )}
      <Button
        title="Read it"
        manner="main"
        size="glove"
        style={{ alignSelf: 'flex-start', minWidth: 160 }}
        onPress={() =>
          onRead({
            time: titles.indexOf(time),
            pressure: titles.indexOf(pressure),
            timeUnit: saidTime ?? timeUnit ?? 's',
            pressureUnit: saidPressure ?? pressureUnit ?? 'psi',
          })
        }
      />
    </View>
  );
}

interface FoundProps {
  found: TraceFound;
  worker: Comlink.Remote<TraceWorker>;
  file: File | null;
}

function Found({ found, worker, file }: FoundProps) {
  const { unit } = usePrefs();
  const [box, onBox] = useBoxSize();
  const [chosen, setChosen] = useState<Segment | null>(null);
  const view = useMemo((): readonly [number, number] => {
    if (!chosen) return [0, found.endS];
    const around = Math.max(5, 0.15 * (chosen.toS - chosen.fromS));
    return [Math.max(0, chosen.fromS - around), Math.min(found.endS, chosen.toS + around)];
  }, [chosen, found.endS]);
  const [points, setPoints] = useState<DrawnPoint[]>([]);
  const [residuals, setResiduals] = useState<DrawnPoint[]>([]);
  const columns = Math.round(box.width);
  const asked = useRef(0);
  useEffect(() => {
    if (columns === 0) return;
    asked.current += 1;
    const turn = asked.current;
    const fitted = chosen?.slopePsiPerS == null ? null : chosen;
    void Promise.all([
      worker.draw(view[0], view[1], columns),
      fitted ? worker.residuals(fitted.fromS, fitted.toS, columns) : [],
    ]).then(([drawn, left]) => {
      if (turn !== asked.current) return;
      setPoints(drawn);
      setResiduals(left);
    });
  }, [chosen, columns, view, worker]);
  const levels = points.map((point) => point.psi);
  const range: readonly [number, number] = chosen
    ? [Math.min(...levels, Infinity), Math.max(...levels, -Infinity)]
    : [found.lowPsi, found.highPsi];
  const most = Math.max(0.1, ...residuals.map(({ psi }) => Math.abs(psi)));
  const save = async () => {
    const url = URL.createObjectURL(new Blob([await worker.csv()], { type: 'text/csv' }));
    const link = document.createElement('a');
    link.href = url;
    link.download = 'trace.csv';
    link.click();
    URL.revokeObjectURL(url);
  };
  return (
    <View style={{ gap: space.gap }}>
      <Txt tone="quiet">
        {`${found.rows.toLocaleString('en-GB')} readings${found.leftOut > 0 ? `, ${found.leftOut.toLocaleString('en-GB')} rows left out that could not be read` : ''}.`}
      </Txt>
      <View onLayout={onBox} style={{ gap: space.near }}>
        {box.width > 0 && points.length > 0 ? (
          <TraceChart
            label="Recorded pressure"
            points={points}
            segments={found.segments}
            chosen={chosen}
            view={view}
            rangePsi={range}
            unit={unit}
            width={box.width}
            height={280}
          />
        ) : null}
        {box.width > 0 && residuals.length > 0 ? (
          <>
            <Txt as="small" tone="quiet">{`What the line leaves, ${unit}`}</Txt>
            <TraceChart
              label="What the line leaves"
              points={residuals}
              segments={[]}
              chosen={null}
              view={view}
              rangePsi={[-most, most]}
              unit={unit}
              width={box.width}
              height={110}
            />
          </>
        ) : null}
      </View>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near }}>
        <Button title="Whole trace" disabled={!chosen} onPress={() => setChosen(null)} />
        <Button title="Save as CSV" onPress={() => void save()} />
      </View>
      <MakeRun worker={worker} endS={found.endS} file={file} />
      <SegmentList segments={found.segments} unit={unit} chosen={chosen} onChoose={setChosen} />
    </View>
  );
}

/** A file knows when it was written last: about the end of what it recorded. */
function endOf(file: File | null): number {
  const nowMs = Date.now();
  return Math.min(nowMs, file?.lastModified ?? nowMs);
}

/** Turns what was found into the marks of a run of one unit, once somebody says so. */
function MakeRun({
  worker,
  endS,
  file,
}: {
  worker: Comlink.Remote<TraceWorker>;
  endS: number;
  file: File | null;
}) {
  const me = useMe();
  const units = useUnits();
  const rules = useRuleSets();
  const [title, setTitle] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const all = (units.data ?? []).filter((unit) => unit.retiredAtMs === null && unit.governor);
  const titles = all.map(unitTitle);
  const unit = all[titles.indexOf(title ?? titles[0] ?? '')];
  if (!unit || !rules.data || me.role === 'viewer') return null;
  const sets = rules.data;
  const make = async () => {
    const ruleSet = ruleSetFor(unit, sets.sets, sets.defaultId);
    const header = { unit, towed: [], rigId: null, ruleSet, leftOut: ['drain'] };
    const startedAtMs = Math.round(endOf(file) - endS * 1000);
    const facts = await worker.facts(header, startedAtMs);
    const made = await runFromTrace(me, header, startedAtMs, facts);
    if ('problem' in made) setTrouble(made.problem);
    else router.push(`/run/${made.id}`);
  };
  return (
    <View style={{ gap: space.near }}>
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      <View style={{ flexDirection: 'row', alignItems: 'flex-end', gap: space.near }}>
        <Pick label="Run of" options={titles} value={unitTitle(unit)} onChange={setTitle} />
        <Button title="Make a run of it" manner="main" onPress={() => void make()} />
      </View>
      <Txt as="small" tone="quiet">
        Steps that do not show in a pressure are skipped and say so; you look through it and keep
        it.
      </Txt>
    </View>
  );
}
