import { useDeferredValue, useEffect, useState } from 'react';
import { useWindowDimensions } from 'react-native';
import { useMe } from '../account/session';
import { usePutsSignInOff, useSignInCovers } from '../account/signInPutOff';
import { rigKey } from '../air/useDrawn';
import { prepareSuspects } from '../suspects/useSuspects';
import type { LinkedGauge } from '../linked/linkedGauge';
import { useLinkChoice } from '../linked/useLinkChoice';
import { useLinkedGauge } from '../linked/useLinkedGauge';
import { useLogOpenHere } from '../store/openHere';
import type { LiveRun } from '../store/useRun';
import { useWide } from '../theme/useWide';
import { useRunActs } from './desk/useRunActs';
import { useRunDesk } from './desk/useRunDesk';
import { useRunKeys } from './desk/useRunKeys';
import { useSpokenRun } from './desk/useSpokenRun';
import { useWakeLock } from '../ui/useWakeLock';
import { PadPart } from './pad/PadPart';
import { RunHead } from './RunHead';
import { RunLadder } from './RunLadder';
import { PhoneRun, WideRun } from './RunLayouts';
import { RunPane } from './RunPane';
import { RunSheets, type SheetName } from './step/RunSheets';
import type { HowRead } from './step/StepPane';

/** The pad's share of a phone's height, and its least and most, px. */
const PAD = { share: 0.32, least: 180, most: 300, wide: 170, looking: 116 };

/** What a run for practice brings with it: its gauge, and where it is left to. */
export interface InPractice {
  gauge: LinkedGauge;
  reading: HowRead;
  leaveTitle: string;
  onLeave: () => void;
}

/** A run with so many marks is made to its end, mostly. */
const PREPARES_FROM_MARKS = 4;
const PREPARES_AFTER_MS = 1_500;

interface LiveRunProps {
  run: LiveRun;
}

/** A run that is being made: the ladder, the step, and the pad. It knows kinds of acts, and no step by name. */
export function LiveRunScreen({ run, practice }: LiveRunProps & { practice?: InPractice }) {
  const { header, state } = run;
  const { unit } = header.made;
  const wide = useWide();
  const { height } = useWindowDimensions();
  const [sheet, setSheet] = useState<SheetName>(null);
  useLogOpenHere(state.closed === null);
  // What is made for practice is kept nowhere.
  usePutsSignInOff(!practice && state.closed === null);
  const isCovered = useSignInCovers();
  const { demo } = useMe();
  const [linkChosen, setByGauge] = useLinkChoice(header.id);
  const byGauge = linkChosen && demo;
  const linked = useLinkedGauge(byGauge && !practice ? unit.id : null, 'primary');
  const gauge = practice?.gauge ?? linked?.gauge ?? null;
  const desk = useRunDesk(run, gauge);
  const acts = useRunActs(run, desk);
  const reading = practice?.reading ?? { byGauge, maySimulate: demo, choose: setByGauge };
  // While the needle is waited for: so that the summary can name suspects.
  const isUnderWay = !practice && state.marks.length >= PREPARES_FROM_MARKS;
  useEffect(() => {
    const rig = { unit: header.made.unit, towed: header.made.towed };
    if (!isUnderWay) return undefined;
    // A thread takes a while to start: not while the mark that brought us here is drawn.
    const timer = setTimeout(
      () => prepareSuspects({ rig, rigKey: rigKey(rig) }),
      PREPARES_AFTER_MS,
    );
    return () => clearTimeout(timer);
  }, [header.made.towed, header.made.unit, isUnderWay]);
  useWakeLock();
  useSpokenRun(state, desk.hold, unit.gauge.unit, header.made.ruleSet.school);
  useRunKeys(
    {
      mark: acts.press,
      nudge: acts.nudge,
      undo: acts.undo,
      usual: acts.answerUsual,
      next: () => {
        if (state.step?.maySkip) setSheet('skip');
      },
      help: () => setSheet('keys'),
    },
    sheet === null && !isCovered,
  );
  // Where the needle is moved by hand, the ladder and what is said about it are drawn after the needle.
  const settled = useDeferredValue(run);
  const settledDesk = useDeferredValue(desk);

  const head = (
    <RunHead
      run={settled}
      wide={wide}
      said={practice ? 'practice, not kept' : (linked?.said ?? null)}
      leave={practice ? { title: practice.leaveTitle, onPress: practice.onLeave } : null}
      onStop={() => setSheet('stop')}
    />
  );
  const ladder = <RunLadder state={settled.state} header={header} desk={settledDesk} />;
  const pane = (
    <RunPane
      run={settled}
      desk={settledDesk}
      wide={wide}
      onSkip={() => setSheet('skip')}
      reading={reading}
    />
  );
  const marking = wide
    ? PAD.wide
    : Math.round(Math.min(PAD.most, Math.max(PAD.least, height * PAD.share)));
  const pad = (
    <PadPart
      run={run}
      desk={desk}
      linked={gauge}
      acts={acts}
      heights={{ marking, looking: PAD.looking }}
      rowDesk={settledDesk}
      canUndo={settled.state.undoable !== null}
      onNote={() => setSheet('note')}
    />
  );
  const sheets = (
    <RunSheets sheet={sheet} state={state} tell={desk.tell} onLeave={() => setSheet(null)} />
  );

  const Layout = wide ? WideRun : PhoneRun;
  return <Layout {...{ run: settled, live: run, head, ladder, pane, pad, sheets }} />;
}
