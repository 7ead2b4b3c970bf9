import { doubtsOf, figuresOf, itemsOf, outcomeOf, rigTitle, unitTitle } from '@keen-bleed/core';
import { useDeferredValue, useMemo, useState } from 'react';
import { ScrollView, useWindowDimensions, View } from 'react-native';
import { usePrefs } from '../prefs/prefs';
import { FigureList } from '../record/FigureList';
import { FindingList } from '../record/FindingList';
import { MarkList } from '../record/MarkList';
import type { LiveRun } from '../store/useRun';
import { space, target } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { useWide } from '../theme/useWide';
import { Button } from '../ui/Button';
import { LinkTo } from '../ui/LinkTo';
import { OutboxSign } from '../ui/OutboxSign';
import { Txt } from '../ui/Txt';
import { VerdictSign } from '../ui/VerdictSign';
import { PadPart } from './pad/PadPart';
import { LADDER_WIDTH, RunLadder } from './RunLadder';
import { RunSheets, type SheetName } from './step/RunSheets';
import { StepPane, type HowRead } from './step/StepPane';
import type { LinkedGauge } from '../linked/linkedGauge';
import { useLinkChoice } from '../linked/useLinkChoice';
import { useLinkedGauge } from '../linked/useLinkedGauge';
import { useRunDesk, type RunDesk } from './desk/useRunDesk';
import { useRunKeys } from './desk/useRunKeys';
import { useSpokenRun } from './desk/useSpokenRun';
import { useWakeLock } from './desk/useWakeLock';

/** The pad's share of a phone's height, and its least and most, px. */
const PAD = { share: 0.32, least: 180, most: 300, wide: 170, looking: 116 };
const STEP_WIDTH = 400;

/** What a run for practice brings with it: its gauge, and where it is left to. */
export interface InPractice {
  gauge: LinkedGauge;
  reading: HowRead;
  leaveTitle: string;
  onLeave: () => void;
}

interface LiveRunProps {
  run: LiveRun;
}

/** A run that is being made: the ladder, the step, and the pad. It knows kinds of acts, and no step by name. */
export function LiveRunScreen({ run, practice }: LiveRunProps & { practice?: InPractice }) {
  const { header, state } = run;
  const { unit } = header.made;
  const wide = useWide();
  const palette = usePalette();
  const { hand } = usePrefs();
  const { height } = useWindowDimensions();
  const [sheet, setSheet] = useState<SheetName>(null);
  const [byGauge, setByGauge] = useLinkChoice(header.id);
  const linked = useLinkedGauge(byGauge && !practice ? unit.id : null, 'primary');
  const desk = useRunDesk(run, practice?.gauge ?? linked?.gauge ?? null);
  const reading = practice?.reading ?? { byGauge, choose: setByGauge };
  useWakeLock();
  useSpokenRun(state, desk.hold, unit.gauge.unit, header.made.ruleSet.school);
  useRunKeys(
    {
      mark: desk.press,
      nudge: desk.nudge,
      undo: desk.undo,
      next: () => {
        if (state.step?.maySkip) setSheet('skip');
      },
      help: () => setSheet('keys'),
    },
    sheet === null,
  );
  // A mark is first shown on the pad, within a frame even on a slow phone; the ladder and what is said about
  // the mark are drawn right after.
  const settled = useDeferredValue(run);
  const settledDesk = useDeferredValue(desk);
  const busy = settled !== run;

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
  // Nothing is timed while things are looked at: the room is the list's.
  const padHeight =
    state.step && itemsOf(state.step).length > 0
      ? PAD.looking
      : wide
        ? PAD.wide
        : Math.round(Math.min(PAD.most, Math.max(PAD.least, height * PAD.share)));
  const pad = (
    <PadPart
      state={state}
      gauge={unit.gauge}
      desk={desk}
      height={padHeight}
      onNote={() => setSheet('note')}
    />
  );
  const sheets = (
    <RunSheets sheet={sheet} state={state} tell={desk.tell} onLeave={() => setSheet(null)} />
  );

  if (wide) {
    return (
      <View role="main" aria-busy={busy} style={{ flex: 1, flexDirection: 'row' }}>
        <View style={{ width: LADDER_WIDTH + 2 * space.gap, padding: space.gap }}>{ladder}</View>
        <View
          style={{ width: STEP_WIDTH, paddingVertical: space.gap, justifyContent: 'space-between' }}
        >
          {head}
          <ScrollView style={{ flex: 1 }} contentContainerStyle={{ paddingVertical: space.step }}>
            {pane}
          </ScrollView>
          {pad}
          <Txt as="small" tone="quiet" style={{ paddingTop: space.near }}>
            space marks · arrows nudge · U undo · N next · ? keys
          </Txt>
        </View>
        <ScrollView
          style={{ flex: 1 }}
          contentContainerStyle={{ padding: space.wide, gap: space.gap }}
        >
          <SoFar run={settled} />
        </ScrollView>
        {sheets}
      </View>
    );
  }
  const { step } = settled.state;
  const withLadder = step?.act.kind === 'marks' || step?.act.kind === 'hold';
  return (
    <View role="main" aria-busy={busy} style={{ flex: 1, backgroundColor: palette.ground }}>
      <View style={{ paddingHorizontal: space.gap, paddingTop: space.near }}>{head}</View>
      <View
        style={{
          flex: 1,
          minHeight: 0,
          flexDirection: hand === 'left' ? 'row-reverse' : 'row',
        }}
      >
        {withLadder ? <View style={{ width: LADDER_WIDTH }}>{ladder}</View> : null}
        <ScrollView
          style={{ flex: 1 }}
          contentContainerStyle={{
            paddingLeft: withLadder ? space.near : space.gap,
            paddingRight: withLadder ? space.step : space.gap,
            paddingVertical: space.near,
            gap: space.gap,
          }}
        >
          {pane}
          {step ? null : <MarkList run={settled} />}
        </ScrollView>
      </View>
      {pad}
      {sheets}
    </View>
  );
}

/** A rig in the room a phone has: what is in front, and the numbers of what it pulls. */
function shortTitle({ unit, towed }: LiveRun['header']['made']): string {
  if (towed.length < 2) return rigTitle({ unit, towed });
  return [unitTitle(unit), ...towed.map((each) => each.number)].join(' + ');
}

interface RunHeadProps extends LiveRunProps {
  wide: boolean;
  /** How a linked gauge stands. */
  said: string | null;
  /** Where a run for practice is left to; null for the sheet of the unit. */
  leave: { title: string; onPress: () => void } | null;
  onStop: () => void;
}

function RunHead({ run, wide, said, leave, onStop }: RunHeadProps) {
  const { header, state } = run;
  return (
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        justifyContent: 'space-between',
        gap: space.step,
      }}
    >
      <View style={{ flex: 1, minWidth: 0 }}>
        <Txt as="bodyBold" heading={1} lines={1}>
          {wide ? rigTitle(header.made) : shortTitle(header.made)}
        </Txt>
        <View style={{ flexDirection: 'row', gap: space.step }}>
          <Txt as="small" tone="quiet" lines={1} style={{ flexShrink: 0 }}>
            {state.step ? `${state.stepIndex + 1} of ${state.procedure.steps.length}` : 'all steps'}
          </Txt>
          {said ? (
            <Txt as="small" tone="quiet" lines={1}>
              {said}
            </Txt>
          ) : null}
          {wide || said ? null : <OutboxSign inline />}
        </View>
      </View>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: space.near }}>
        {state.step ? (
          <Button
            manner="quiet"
            size="glove"
            title="Stop"
            label="Stop here and keep the run as not finished"
            onPress={onStop}
          />
        ) : null}
        {leave ? (
          <Button manner="quiet" size="glove" title={leave.title} onPress={leave.onPress} />
        ) : (
          <LinkTo
            to={`/unit/${header.subject.unitId}`}
            label="Leave; the run stays open"
            style={{ minHeight: target.glove, paddingHorizontal: space.near }}
          >
            <Txt>Leave</Txt>
          </LinkTo>
        )}
      </View>
    </View>
  );
}

interface RunPaneProps extends LiveRunProps {
  desk: RunDesk;
  wide: boolean;
  onSkip: () => void;
  reading: HowRead;
}

/** The step that is waited on, or, when all are done, what the run comes to. */
function RunPane({ run, desk, wide, onSkip, reading }: RunPaneProps) {
  const { header, state } = run;
  const { unit, ruleSet } = header.made;
  const { step } = state;
  const context = useFigureContext(header);
  const figures = useMemo(() => figuresOf(state, context), [context, state]);
  const doubts = useMemo(() => doubtsOf(state, unit.gauge.unit), [state, unit.gauge.unit]);
  if (step) {
    return (
      <StepPane
        state={state}
        gauge={unit.gauge}
        school={ruleSet.school}
        desk={desk}
        figures={figures}
        doubts={doubts}
        narrow={!wide && (step.act.kind === 'marks' || step.act.kind === 'hold')}
        onSkip={onSkip}
        reading={reading}
      />
    );
  }
  const outcome = outcomeOf(state, context);
  return (
    <View style={{ gap: space.step }}>
      <Txt as="stepTitle" heading={2}>
        All steps done
      </Txt>
      <VerdictSign verdict={outcome.verdict} as="heading" />
      <Txt>{outcome.headline}</Txt>
      {wide ? null : (
        <>
          <FigureList figures={outcome.figures} unit={unit.gauge.unit} full />
          <FindingList findings={outcome.findings} />
        </>
      )}
    </View>
  );
}

/** What a run's figures are computed in the light of, the same object as long as its header is. */
function useFigureContext(header: LiveRun['header']) {
  return useMemo(
    () => ({
      unit: header.made.unit,
      towed: header.made.towed,
      ruleSet: header.made.ruleSet,
      sayIn: header.made.unit.gauge.unit,
    }),
    [header],
  );
}

/** What came out so far, beside the run on a wide screen. A hold that still runs has no verdict yet. */
function SoFar({ run }: LiveRunProps) {
  const { header, state } = run;
  const { unit } = header.made;
  const context = useFigureContext(header);
  const outcome = useMemo(() => outcomeOf(state, context), [context, state]);
  const figures = outcome.figures.filter((figure) => figure.stepId !== state.step?.id);
  return (
    <>
      <Txt as="heading" heading={2}>
        This run so far
      </Txt>
      {figures.length > 0 ? (
        <FigureList figures={figures} unit={unit.gauge.unit} full={!state.step} />
      ) : (
        <Txt tone="quiet">Figures stand here as soon as their marks are made.</Txt>
      )}
      <FindingList findings={outcome.findings} />
      <MarkList run={run} />
    </>
  );
}
