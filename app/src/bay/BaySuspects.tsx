import { outcomeOf } from '@keen-bleed/core';
import type { Check } from '@keen-bleed/core/checks';
import { evidenceOfRun, type Evidence } from '@keen-bleed/core/diagnosis';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { rigKey } from '../air/useDrawn';
import { usePrefs } from '../prefs/prefs';
import type { LiveRun } from '../store/useRun';
import { NextCheck } from '../suspects/NextCheck';
import { SuspectList } from '../suspects/SuspectList';
import type { Asked } from '../suspects/suspecting';
import { useSuspects } from '../suspects/useSuspects';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Txt } from '../ui/Txt';
import type { BayRig, BaySetup } from './bayProtocol';
import { BayJobPane } from './BayJobPane';
import type { BayJob } from './useBayJob';
import type { PracticeLog } from './usePracticeLog';

interface BaySuspectsProps {
  setup: BaySetup;
  rig: BayRig;
  log: PracticeLog;
  run: LiveRun | null;
  job: BayJob;
  onCheck: (check: Check) => void;
}

/** Suspects for what was found on a rig in the Bay: the same weighing as on a real one, asked for when it is wanted. */
export function BaySuspects({ setup, rig, log, run, job, onCheck }: BaySuspectsProps) {
  const { unit: sayIn } = usePrefs();
  const [asking, setAsking] = useState(false);
  const [chosen, setChosen] = useState<string | null>(null);
  const evidence = useMemo((): Evidence[] => {
    const found: Evidence[] = [];
    if (rig.driverSays) {
      found.push({ kind: 'complaint', atMs: 1, complaintId: rig.driverSays.id });
    }
    if (run?.state.closed) {
      const { unit, towed, ruleSet } = run.header.made;
      const outcome = outcomeOf(run.state, { unit, towed, ruleSet, sayIn: unit.gauge.unit });
      found.push(...evidenceOfRun({ outcome, gauge: run.state.gauge, atMs: 1 }));
    }
    // The newest stands first; a repair counts for what came after it.
    log.done.forEach(({ checkId, answer }, n) => {
      found.push({ kind: 'answer', atMs: 10 * (log.done.length - n), checkId, answer });
    });
    for (const { unit, part, after } of job.repairs) {
      found.push({ kind: 'repair', atMs: 10 * after + 5, unit, part });
    }
    return found;
  }, [job.repairs, log.done, rig.driverSays, run]);
  const asked: Asked | null = asking
    ? {
        rig: setup.rig,
        rigKey: rigKey(setup.rig),
        evidence,
        failures: [],
        unit: sayIn,
        senses: setup.senses ?? null,
        state: null,
      }
    : null;
  const { told, before } = useSuspects(asked);
  if (!asking) {
    return (
      <View style={{ gap: space.hair }}>
        <Button
          title="Weigh the suspects"
          onPress={() => setAsking(true)}
          style={{ alignSelf: 'flex-start' }}
        />
        <Txt as="small" tone="quiet">
          What the driver says, a run by the book, and every check you do are weighed.
        </Txt>
      </View>
    );
  }
  // While a part is being fitted and tested, that is what is shown.
  if (job.state && job.state.station !== 'found') return <BayJobPane job={job} setup={setup} />;
  const next = told?.next ?? null;
  const check = next?.next === 'check' ? rig.checks.find(({ id }) => id === next.checkId) : null;
  return (
    <View style={{ gap: space.near }}>
      <Txt as="heading" heading={2}>
        Suspects
      </Txt>
      {told?.working ? (
        <Txt as="small" tone="quiet" live="polite">
          {`${told.rough ? 'Rough: ' : ''}working out ${told.working.what}, ${Math.round(100 * told.working.share)} %`}
        </Txt>
      ) : null}
      {told ? (
        <SuspectList
          told={told}
          before={before}
          chosen={chosen}
          onChoose={setChosen}
          onName={null}
          onJob={(suspect) =>
            job.open(
              suspect,
              log.done[0] ? `${log.done[0].title}: ${log.done[0].said}` : 'the run by the book',
            )
          }
          onShow={null}
        />
      ) : (
        <Txt tone="quiet">Working out what this rig would show under each fault.</Txt>
      )}
      {next ? (
        <NextCheck
          next={next}
          check={check ?? null}
          onAnswer={null}
          onOpen={
            check
              ? (id) => {
                  const which = rig.checks.find((each) => each.id === id);
                  if (which) onCheck(which);
                }
              : null
          }
          openTitle="Do it"
        />
      ) : null}
    </View>
  );
}
