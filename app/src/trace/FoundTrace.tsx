import type { RunHeader } from '@keen-bleed/contract';
import type { Segment } from '@keen-bleed/core/trace';
import type * as Comlink from 'comlink';
import { useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import { usePrefs } from '../prefs/prefs';
import { useBoxSize } from '../ui/useBoxSize';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Txt } from '../ui/Txt';
import { BrakeTiming } from './BrakeTiming';
import { SegmentList } from './SegmentList';
import { TraceChart, TraceKey } from './TraceChart';
import { TraceRun } from './TraceRun';
import { moved, within, zoomed, type TraceView } from './traceView';
import type { DrawnPoint, TraceFound, TraceWorker } from '../recorded/traceWorker';

interface FoundTraceProps {
  found: TraceFound;
  worker: Comlink.Remote<TraceWorker>;
  file: File | null;
  /** The unit it was recorded on, where it came from its bench. */
  unitId: string | null;
  onPlay: (header: RunHeader) => void;
}

/** How many rows could not be read, if any. */
const sayLeftOut = (count: number) =>
  count === 0
    ? ''
    : `, ${count.toLocaleString('en-GB')} ${count === 1 ? 'row' : 'rows'} left out that could not be read`;

const NONE: readonly DrawnPoint[] = [];

/** What was found in a file: its curves, looked at as closely as wanted, its segments, and what is made of them. */
export function FoundTrace({ found, worker, file, unitId, onPlay }: FoundTraceProps) {
  const { unit } = usePrefs();
  const { endS } = found;
  const [box, onBox] = useBoxSize();
  const [chosen, setChosen] = useState<Segment | null>(null);
  const [view, setView] = useState<TraceView>([0, endS]);
  const [lines, setLines] = useState<readonly (readonly DrawnPoint[])[]>([]);
  const [residuals, setResiduals] = useState<readonly DrawnPoint[]>(NONE);
  const columns = Math.round(box.width);
  const asked = useRef(0);
  useEffect(() => {
    if (columns === 0) return;
    asked.current += 1;
    const turn = asked.current;
    const fitted = chosen?.slopePsiPerS == null ? null : chosen;
    void Promise.all([
      worker.draw(view[0], view[1], columns),
      fitted ? worker.residuals(fitted.fromS, fitted.toS, columns) : NONE,
    ]).then(([drawn, left]) => {
      // A stretch that was asked for before is not drawn over a later one.
      if (turn !== asked.current) return;
      setLines(drawn);
      setResiduals(left);
    });
  }, [chosen, columns, view, worker]);
  const choose = (segment: Segment) => {
    const around = Math.max(5, 0.15 * (segment.toS - segment.fromS));
    setChosen(segment);
    setView(within([segment.fromS - around, segment.toS + around], endS));
  };
  const levels = lines.flatMap((points) => points.map((point) => point.psi));
  const range = levels.length > 0 ? ([Math.min(...levels), Math.max(...levels)] as const) : null;
  const most = Math.max(0.1, ...residuals.map(({ psi }) => Math.abs(psi)));
  const isWhole = view[0] <= 0 && view[1] >= endS;
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
        {`${found.rows.toLocaleString('en-GB')} readings${sayLeftOut(found.leftOut)}.`}
      </Txt>
      <View onLayout={onBox} style={{ gap: space.near }}>
        {found.titles.length > 1 ? <TraceKey titles={found.titles} /> : null}
        {box.width > 0 && range ? (
          <TraceChart
            label="Recorded pressure"
            lines={lines}
            segments={found.segments}
            chosen={chosen}
            view={view}
            rangePsi={range}
            unit={unit}
            width={box.width}
            height={280}
            onView={(next) => setView(within(next, endS))}
          />
        ) : null}
        {box.width > 0 && residuals.length > 0 ? (
          <>
            <Txt as="small" tone="quiet">{`What the line leaves, ${unit}`}</Txt>
            <TraceChart
              label="What the line leaves"
              lines={[residuals]}
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
        <Button
          title="−"
          label="Farther"
          disabled={isWhole}
          onPress={() => setView(zoomed(view, 0.5, endS))}
        />
        <Button title="+" label="Nearer" onPress={() => setView(zoomed(view, 2, endS))} />
        <Button
          title="←"
          label="Earlier"
          disabled={view[0] <= 0}
          onPress={() => setView(moved(view, -0.5, endS))}
        />
        <Button
          title="→"
          label="Later"
          disabled={view[1] >= endS}
          onPress={() => setView(moved(view, 0.5, endS))}
        />
        <Button
          title="Whole trace"
          disabled={isWhole && !chosen}
          onPress={() => {
            setChosen(null);
            setView([0, endS]);
          }}
        />
        <Button title="Save as CSV" onPress={() => void save()} />
      </View>
      <TraceRun worker={worker} endS={endS} file={file} onPlay={onPlay} />
      <BrakeTiming moves={found.moves} unitId={unitId} fileName={file?.name ?? 'a file'} />
      <SegmentList segments={found.segments} unit={unit} chosen={chosen} onChoose={choose} />
    </View>
  );
}
