import { useLayoutEffect, useRef, type ReactNode } from 'react';
import { ScrollView, View, type ViewStyle } from 'react-native';
import { usePrefs } from '../prefs/prefs';
import { PlanBeside } from '../plan/PlanBeside';
import { MarkList } from '../record/MarkList';
import type { LiveRun } from '../store/useRun';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { Txt } from '../ui/Txt';
import { LADDER_WIDTH } from './RunLadder';
import { SoFar } from './SoFar';

const STEP_WIDTH = 400;

/** The parts of a run's screen, placed by the room there is. */
interface RunParts {
  run: LiveRun;
  /** The run as it is now: what is drawn may be a moment behind. */
  live: LiveRun;
  head: ReactNode;
  ladder: ReactNode;
  pane: ReactNode;
  pad: ReactNode;
  sheets: ReactNode;
}

interface RunMainProps {
  run: LiveRun;
  live: LiveRun;
  style: ViewStyle;
  children: ReactNode;
}

/** The page's main part. It says that it is busy while what it shows is of a moment that has passed. */
function RunMain({ run, live, style, children }: RunMainProps) {
  const main = useRef<View>(null);
  const { ahead, state } = live;
  useLayoutEffect(() => {
    // Said past the drawing: it changes with each press, and nothing else here does.
    const say = () =>
      (main.current as HTMLElement | null)?.setAttribute(
        'aria-busy',
        String(run !== live || (ahead?.state() ?? state) !== state),
      );
    say();
    return ahead?.subscribe(say);
  }, [ahead, live, run, state]);
  return (
    <View ref={main} role="main" style={style}>
      {children}
    </View>
  );
}

/** Side by side: the ladder, the step with its pad, and what came out so far. */
export function WideRun({ run, live, head, ladder, pane, pad, sheets }: RunParts) {
  return (
    <RunMain {...{ run, live }} style={{ flex: 1, flexDirection: 'row' }}>
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
        <SoFar run={run} />
        <PlanBeside
          rig={run.header.made}
          title={run.state.step ? 'Where this step acts' : 'The rig'}
          stepId={run.state.step?.id ?? null}
        />
      </ScrollView>
      {sheets}
    </RunMain>
  );
}

/** One column in reach of a thumb, the ladder beside the step where needles are marked. */
export function PhoneRun({ run, live, head, ladder, pane, pad, sheets }: RunParts) {
  const palette = usePalette();
  const { hand } = usePrefs();
  const { step } = run.state;
  const withLadder = step?.act.kind === 'marks' || step?.act.kind === 'hold';
  return (
    <RunMain {...{ run, live }} style={{ flex: 1, backgroundColor: palette.ground }}>
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
          {step ? null : <MarkList run={run} />}
        </ScrollView>
      </View>
      {pad}
      {sheets}
    </RunMain>
  );
}
