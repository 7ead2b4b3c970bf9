import type { RunHeader } from '@keen-bleed/contract';
import type { ColumnHead } from '@keen-bleed/core/trace';
import * as Comlink from 'comlink';
import { useLocalSearchParams } from 'expo-router';
import { createElement, useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { Screen } from '../ui/Screen';
import { Txt } from '../ui/Txt';
import { FoundTrace } from './FoundTrace';
import { TracePlayer } from './TracePlayer';
import type { TraceColumns, TraceFound, TraceWorker } from '../recorded/traceWorker';
import { WhichColumns } from './WhichColumns';

const UNREADABLE =
  'Nothing could be read in those columns. Choose the column of times and one of pressures.';

/** A recorded curve: read from a logger's file, taken apart, and made into a run if wanted. */
export function TraceScreen() {
  const { for: unitId } = useLocalSearchParams<{ for?: string }>();
  const worker = useTraceWorker();
  const picker = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<File | null>(null);
  const [heads, setHeads] = useState<ColumnHead[]>([]);
  const [progress, setProgress] = useState<number | null>(null);
  const [found, setFound] = useState<TraceFound | null>(null);
  const [playing, setPlaying] = useState<RunHeader | null>(null);
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
  if (playing && found) {
    return (
      <TracePlayer
        header={playing}
        worker={worker}
        endS={found.endS}
        onLeave={() => setPlaying(null)}
      />
    );
  }
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
          <WhichColumns
            key={`${file?.name ?? ''}${file?.lastModified ?? 0}`}
            heads={heads}
            onRead={(columns) => void read(columns)}
          />
        ) : null}
        {progress !== null ? (
          <Txt live="polite">{`reading, ${Math.round(progress * 100)} %`}</Txt>
        ) : null}
        {found ? (
          <FoundTrace
            found={found}
            worker={worker}
            file={file}
            unitId={unitId ?? null}
            onPlay={setPlaying}
          />
        ) : null}
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
