import type { RunHeader } from '@keen-bleed/contract';
import { rigTitle, ruleSetFor } from '@keen-bleed/core';
import type { Check } from '@keen-bleed/core/checks';
import type { PlanSymbol } from '@keen-bleed/core/drawing';
import { useCallback, useRef, useState, type ReactNode } from 'react';
import { ScrollView, useWindowDimensions, View } from 'react-native';
import { PlanView } from '../plan/PlanView';
import { useBringUp } from '../plan/useBringUp';
import { usePlan } from '../plan/usePlan';
import { usePractice } from '../practice/usePractice';
import { useRuleSets } from '../data/useRecords';
import { sayClock } from '../data/when';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { useWide } from '../theme/useWide';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Notice } from '../ui/Notice';
import { Segments } from '../ui/Segments';
import { Steady } from '../ui/Steady';
import { Toggle } from '../ui/Toggle';
import { Txt } from '../ui/Txt';
import { useBoxSize } from '../ui/useBoxSize';
import { Waiting } from '../ui/Waiting';
import { BayControls } from './BayControls';
import { BayEnding } from './BayEnding';
import { BayPart } from './BayPart';
import { LETTERS, MOST_TEED, type Teed } from './teed';
import type { BayFault, BaySetup } from './bayProtocol';
import { BayRun } from './BayRun';
import { useBayClock } from './useBayClock';
import { cabControls, timeControl } from './cabControls';
import { NeedleLadder } from './NeedleLadder';
import { useAirSound } from './useAirSound';
import { usePracticeLog, type PracticeLog } from './usePracticeLog';
import { runHeaderOf } from '../store/startRun';
import { useBay, type Bay } from './useBay';

const LADDER = { phone: 150, wide: 190, height: 380 };
/** What was done last, shown; the rest stands under Practice. */
const DONE_SHOWN = 6;
/** The smallest a drawing gets on a wide screen. */
const LEAST_SCALE = 0.85;

interface BayCabProps {
  setup: BaySetup;
  onLeave: () => void;
}

/** At the wheel of a rig in the Bay and around it, or in a run that is made in it. */
export function BayCab({ setup, onLeave }: BayCabProps) {
  const { bay, trouble } = useBay(setup);
  const rules = useRuleSets();
  const wide = useWide();
  const [header, setHeader] = useState<RunHeader | null>(null);
  const [running, setRunning] = useState(false);
  const clock = useBayClock(bay);
  const practice = usePractice(header, clock);
  const practiceLog = usePracticeLog(setup);
  const start = () => {
    if (!rules.data) return;
    const { unit, towed } = setup.rig;
    const ruleSet = ruleSetFor(unit, rules.data.sets, rules.data.defaultId);
    const started = { unit, towed: [...towed], rigId: null, ruleSet, leftOut: ['drain'] };
    setHeader(runHeaderOf(started, clock()));
    setRunning(true);
  };
  if (running && practice && bay) {
    return <BayRun practice={practice} bay={bay} onLeave={() => setRunning(false)} />;
  }
  const doneWords = `${practiceLog.done.length} ${practiceLog.done.length === 1 ? 'check' : 'checks'}`;
  const words = bay
    ? `${setup.hidden === null ? 'practice' : hiddenWords(setup.hidden)} · ${sayClock(bay.frame.timeS * 1000)} · ${doneWords}`
    : 'in the Bay';
  const head = () => (
    <View
      style={{
        flexDirection: wide ? 'row' : 'column',
        justifyContent: 'space-between',
        gap: space.near,
        padding: wide ? space.gap : space.step,
        paddingBottom: 0,
      }}
    >
      <View style={{ flexShrink: 1 }}>
        <Txt as="heading" heading={1}>
          {rigTitle(setup.rig)}
        </Txt>
        <Txt as="small" tone="quiet">
          {words}
        </Txt>
      </View>
      <View style={{ flexDirection: 'row', justifyContent: 'space-between', gap: space.near }}>
        {header ? (
          <Button title="Back to the run" onPress={() => setRunning(true)} />
        ) : (
          <Button
            title="Run by the book"
            label="Make a run by the book on it"
            disabled={!bay || !rules.data}
            onPress={start}
          />
        )}
        <Button title="Leave" manner="quiet" onPress={onLeave} />
      </View>
    </View>
  );
  return (
    <View role="main" style={{ flex: 1 }}>
      <Steady
        by={`${words} ${header ? 'run' : ''} ${bay && rules.data ? 'may' : ''} ${wide ? 'wide' : ''}`}
        render={head}
      />
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      {bay ? (
        <Around bay={bay} setup={setup} log={practiceLog} onLeave={onLeave} />
      ) : (
        <View style={{ padding: space.gap }}>
          <Waiting rows={5} />
        </View>
      )}
    </View>
  );
}

const hiddenWords = (hidden: number): string =>
  hidden === 0
    ? 'practice, nothing hidden'
    : `practice, ${hidden === 1 ? 'one hidden fault' : 'two hidden faults'}`;

interface AroundProps {
  bay: Bay;
  setup: BaySetup;
  log: PracticeLog;
  onLeave: () => void;
}

/** Cab and drawing: side by side on a wide screen, one swipe apart on a phone. */
function Around({ bay, setup, log, onLeave }: AroundProps) {
  const wide = useWide();
  const { width } = useWindowDimensions();
  const pages = useRef<ScrollView>(null);
  const [page, setPage] = useState<'cab' | 'rig'>('cab');
  const [said, setSaid] = useState<readonly BayFault[]>([]);
  const [teed, setTeed] = useState<readonly Teed[]>([]);
  const [sounding, setSounding] = useState(false);
  const listenClose = useAirSound(bay, sounding);
  const say = (fault: BayFault) =>
    setSaid((before) =>
      before.some(({ id }) => id === fault.id)
        ? before.filter(({ id }) => id !== fault.id)
        : [...before, fault].slice(-Math.max(1, setup.hidden ?? 1)),
    );
  const check = (which: Check) => {
    if (which.doing.does === 'listen') listenClose(which.doing.way);
    void bay.check(which.id).then((answer) => {
      if (answer) log.add(which, answer);
    });
  };
  const [first] = cabControls(bay, setup.rig.unit.gauge.unit);
  const { frame } = bay;
  const tee = (at: Teed) =>
    setTeed((before) =>
      before.some(({ node }) => node === at.node)
        ? before.filter(({ node }) => node !== at.node)
        : [...before, at].slice(-MOST_TEED),
    );
  const needles = [
    ...frame.needles,
    ...teed.map(({ node }, n) => ({
      title: LETTERS[n] ?? '',
      psi: Math.max(0, frame.psi[node] ?? 0),
    })),
  ];
  // How the cab stands: what a hand has set, and what its lamps show.
  const stands = JSON.stringify({
    ...frame,
    n: 0,
    timeS: 0,
    needles: 0,
    psi: 0,
    scfm: 0,
    devices: 0,
    high: 0,
  });
  const doing = `${teed.map(({ node }) => node).join(' ')} ${log.done.length} ${said.map(({ id }) => id).join(' ')}`;
  const ending =
    setup.hidden === null ? null : (
      <BayEnding bay={bay} said={said} onUnsay={say} onEnd={log.end} onLeave={onLeave} />
    );
  const cab = (
    <View style={{ gap: space.gap }}>
      <Steady by={stands} render={() => (first ? <Choice {...first} /> : null)} />
      <View style={{ flexDirection: 'row', gap: space.gap }}>
        <Steady
          by={`${needles.map(({ psi }) => psi.toFixed(1)).join(' ')} ${wide ? 'wide' : ''}`}
          render={() => (
            <NeedleLadder
              gauge={setup.rig.unit.gauge}
              needles={needles}
              width={wide ? LADDER.wide : LADDER.phone}
              height={LADDER.height}
            />
          )}
        />
        <View style={{ flex: 1, gap: space.step }}>
          {teed.map(({ node, title }, n) => (
            <Txt key={node} as="small">{`${LETTERS[n] ?? ''}: ${title}`}</Txt>
          ))}
          <Steady
            by={stands}
            render={() => <BayControls bay={bay} unit={setup.rig.unit.gauge.unit} />}
          />
        </View>
      </View>
      <Steady
        by={`${bay.frame.speed} ${sounding} ${doing}`}
        render={() => (
          <View style={{ gap: space.gap }}>
            <Choice {...timeControl(bay)} />
            <Toggle label="Sound of the air" value={sounding} onChange={setSounding} />
            <Done log={log} />
            {ending}
          </View>
        )}
      />
    </View>
  );
  const rig = (
    <Steady
      // A needle has to move smoothly, a drawing need not.
      by={`${Math.floor(frame.n / DRAWN_EVERY)} ${doing} ${wide ? 'wide' : ''}`}
      render={() => (
        <RigPane
          bay={bay}
          setup={setup}
          log={log}
          onCheck={check}
          teed={teed}
          onTee={tee}
          onSay={setup.hidden === null ? null : say}
          said={said.map(({ id }) => id)}
        />
      )}
    />
  );
  if (wide) {
    return (
      <View style={{ flex: 1, flexDirection: 'row' }}>
        <ScrollView
          style={{ width: 430, flexGrow: 0 }}
          contentContainerStyle={{ padding: space.gap }}
        >
          {cab}
        </ScrollView>
        <View style={{ flex: 1 }}>{rig}</View>
      </View>
    );
  }
  const turnTo = (next: 'cab' | 'rig') => {
    setPage(next);
    pages.current?.scrollTo({ x: next === 'cab' ? 0 : width, animated: false });
  };
  return (
    <View style={{ flex: 1 }}>
      <View style={{ padding: space.step, paddingBottom: 0 }}>
        <Segments
          label="Cab or rig"
          options={[
            { value: 'cab', title: 'In the cab' },
            { value: 'rig', title: 'Around the rig' },
          ]}
          value={page}
          onChange={turnTo}
        />
      </View>
      <ScrollView
        ref={pages}
        horizontal
        pagingEnabled
        scrollEventThrottle={64}
        onScroll={({ nativeEvent }) => {
          const next = nativeEvent.contentOffset.x > width / 2 ? 'rig' : 'cab';
          if (next !== page) setPage(next);
        }}
        showsHorizontalScrollIndicator={false}
        style={{ flex: 1 }}
        contentContainerStyle={{ height: '100%' }}
      >
        <ScrollView
          style={{ width, height: '100%' }}
          contentContainerStyle={{ padding: space.step, paddingBottom: space.wide }}
        >
          {cab}
        </ScrollView>
        <View style={{ width, height: '100%' }}>{rig}</View>
      </ScrollView>
    </View>
  );
}

function Done({ log: { done } }: { log: PracticeLog }) {
  return (
    <View style={{ gap: space.hair }}>
      <Txt as="heading" heading={2}>
        Done so far
      </Txt>
      {done.length === 0 ? (
        <Txt tone="quiet">
          Nothing yet. Tap a part on the drawing to listen, wet it, drain it or tee a gauge in.
        </Txt>
      ) : (
        <View role="log" aria-label="Done so far">
          {done.slice(0, DONE_SHOWN).map(({ id, title, said }, n) => (
            <Txt key={id} tone={n === 0 ? 'ink' : 'quiet'}>{`${title}: ${said}`}</Txt>
          ))}
        </View>
      )}
    </View>
  );
}

/** Moments of the rig that one of the drawing stands for. */
const DRAWN_EVERY = 3;

interface RigPaneProps {
  bay: Bay;
  setup: BaySetup;
  log: PracticeLog;
  onCheck: (check: Check) => void;
  teed: readonly Teed[];
  onTee: (at: Teed) => void;
  onSay: ((fault: BayFault) => void) | null;
  said: readonly string[];
}

/** A wide drawing is moved sideways; on a phone it always fits. */
const Sideways = ({ wide, children }: { wide: boolean; children: ReactNode }) =>
  wide ? (
    <ScrollView horizontal tabIndex={0} aria-label="The drawing, from front to rear">
      {children}
    </ScrollView>
  ) : (
    children
  );

/** The drawing of the rig in the Bay, with the part that was tapped. */
function RigPane({ bay, setup, log, onCheck, teed, onTee, onSay, said }: RigPaneProps) {
  const palette = usePalette();
  const wide = useWide();
  const { unit: sayIn } = usePrefs();
  const [seeing, setSeeing] = useState(setup.hidden === null || setup.hidden === 0);
  const [shown, setShown] = useState('rig');
  const [chosen, setChosen] = useState<PlanSymbol | null>(null);
  const [box, onBox] = useBoxSize();
  const { scroller, onDrawing, bringUp } = useBringUp();
  const level =
    shown === 'rig' ? ({ show: 'rig' } as const) : ({ show: 'unit', unit: Number(shown) } as const);
  const { bound } = usePlan(setup.rig, wide ? 'left' : 'up', level, {
    shopAir: true,
    load: setup.load,
  });
  const units = [setup.rig.unit, ...setup.rig.towed];
  // On a wide screen it is never so small that it cannot be read: it is moved sideways instead.
  const scale = bound
    ? Math.min(1, Math.max(wide ? LEAST_SCALE : 0, box.width / bound.plan.width))
    : 1;
  const choose = useCallback(
    (symbol: PlanSymbol) => {
      setChosen(symbol);
      bringUp(symbol, scale);
    },
    [bringUp, scale],
  );
  const last = log.done[0];
  const levels = [
    { value: 'rig', title: units.length > 1 ? 'Whole rig' : 'Large parts' },
    ...units.map(({ number }, n) => ({
      value: String(n),
      title: units.length > 1 ? number : 'Every part',
    })),
  ];
  return (
    <View style={{ flex: 1 }}>
      <ScrollView
        ref={scroller}
        style={{ flex: 1 }}
        contentContainerStyle={{ paddingBottom: space.wide, gap: space.near }}
      >
        <View
          style={{ padding: space.step, gap: space.near, flexDirection: 'row', flexWrap: 'wrap' }}
        >
          <Segments label="How much is drawn" options={levels} value={shown} onChange={setShown} />
          <Toggle label="See the air in it" value={seeing} onChange={setSeeing} />
        </View>
        <View
          onLayout={(event) => {
            onBox(event);
            onDrawing(event);
          }}
          role="group"
          aria-label="The rig from above"
          style={{ alignItems: wide ? 'flex-start' : 'center' }}
        >
          {bound && box.width > 0 ? (
            <Sideways wide={wide}>
              <PlanView
                bound={bound}
                frame={seeing ? bay.frame : null}
                unit={sayIn}
                circuit={null}
                chosen={chosen?.key ?? null}
                onChoose={choose}
                fit={scale * bound.plan.width}
              />
            </Sideways>
          ) : (
            <Waiting rows={5} />
          )}
        </View>
      </ScrollView>
      {last ? (
        <View role="status" style={{ padding: space.near, paddingHorizontal: space.step }}>
          <Txt as="bodyBold" tone="accent">{`${last.title}: ${last.said}`}</Txt>
        </View>
      ) : null}
      {chosen ? (
        <ScrollView
          style={{
            maxHeight: '55%',
            flexGrow: 0,
            borderTopWidth: 2,
            borderColor: palette.ink,
          }}
          contentContainerStyle={{ padding: space.step }}
        >
          <BayPart
            key={chosen.key}
            bay={bay}
            setup={setup}
            symbol={chosen}
            seeing={seeing}
            onCheck={onCheck}
            teed={teed}
            onTee={onTee}
            onSay={onSay}
            said={said}
            onLeave={() => setChosen(null)}
          />
        </ScrollView>
      ) : null}
    </View>
  );
}
