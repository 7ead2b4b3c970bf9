import type { RunHeader } from '@keen-bleed/contract';
import { ruleSetFor, unitTitle } from '@keen-bleed/core';
import type * as Comlink from 'comlink';
import { router } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { useRuleSets, useUnits } from '../data/useRecords';
import { runFromTrace, runHeaderOf, type NewRun } from '../store/startRun';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { Pick } from '../ui/Pick';
import { Txt } from '../ui/Txt';
import type { TraceWorker } from '../recorded/traceWorker';

/** A file knows when it was written last: about the end of what it recorded. */
function endOf(file: File | null): number {
  const nowMs = Date.now();
  return Math.min(nowMs, file?.lastModified ?? nowMs);
}

/** A run that is opened now. */
const openedNow = (run: NewRun): RunHeader => runHeaderOf(run, Date.now());

interface TraceRunProps {
  worker: Comlink.Remote<TraceWorker>;
  endS: number;
  file: File | null;
  onPlay: (header: RunHeader) => void;
}

/** Turns what was found into the marks of a run of one unit, once somebody says so; or plays it to a run for practice. */
export function TraceRun({ worker, endS, file, onPlay }: TraceRunProps) {
  const me = useMe();
  const units = useUnits();
  const rules = useRuleSets();
  const [title, setTitle] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const all = (units.data ?? []).filter((unit) => unit.retiredAtMs === null && unit.governor);
  const titles = all.map(unitTitle);
  const unit = all[titles.indexOf(title ?? titles[0] ?? '')];
  if (!unit || !rules.data) return null;
  const ruleSet = ruleSetFor(unit, rules.data.sets, rules.data.defaultId);
  const started = { unit, towed: [], rigId: null, ruleSet, leftOut: ['drain'] };
  const make = async () => {
    const startedAtMs = Math.round(endOf(file) - endS * 1000);
    try {
      const header = runHeaderOf(started, startedAtMs);
      const made = await runFromTrace(me, header, await worker.facts(header, startedAtMs));
      if ('problem' in made) setTrouble(made.problem);
      else router.push(`/run/${made.id}`);
    } catch {
      setTrouble('This device cannot keep a run. Free some space on it, then try again.');
    }
  };
  const play = () => onPlay(openedNow(started));
  return (
    <View style={{ gap: space.near }}>
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      <View
        style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'flex-end', gap: space.near }}
      >
        <Pick label="Run of" options={titles} value={unitTitle(unit)} onChange={setTitle} />
        {me.role === 'viewer' ? null : (
          <Button title="Make a run of it" manner="main" onPress={() => void make()} />
        )}
        <Button title="Play it" label="Play it to a run for practice" onPress={play} />
      </View>
      <Txt as="small" tone="quiet">
        Made into a run, steps that do not show in a pressure are skipped and say so; you look
        through it and keep it. Played, it is a linked gauge to a run for practice.
      </Txt>
    </View>
  );
}
