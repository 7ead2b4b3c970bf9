import type { RunHeader } from '@keen-bleed/contract';
import { rigTitle, ruleSetFor } from '@keen-bleed/core';
import type { Check } from '@keen-bleed/core/checks';
import { useRef, useState } from 'react';
import { ScrollView, useWindowDimensions, View } from 'react-native';
import { usePractice } from '../practice/usePractice';
import { useRuleSets } from '../data/useRecords';
import { sayClock } from '../data/when';
import { space } from '../theme/space';
import { useWide } from '../theme/useWide';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Notice } from '../ui/Notice';
import { Segments } from '../ui/Segments';
import { Steady } from '../ui/Steady';
import { Toggle } from '../ui/Toggle';
import { Txt } from '../ui/Txt';
import { Waiting } from '../ui/Waiting';
import { BayControls } from './BayControls';
import { BayEnding } from './BayEnding';
import { LETTERS, MOST_TEED, type Teed } from './teed';
import type { BayFault, BaySetup } from './bayProtocol';
import { BayRun } from './BayRun';
import { BaySuspects } from './BaySuspects';
import { BayWalks } from './BayWalks';
import { RigPane } from './RigPane';
import { useBayClock } from './useBayClock';
import { cabControls, timeControl } from './cabControls';
import { NeedleLadder } from './NeedleLadder';
import { useAirSound } from './useAirSound';
import { useBayJob } from './useBayJob';
import { usePracticeLog, type PracticeLog } from './usePracticeLog';
import { runHeaderOf } from '../store/startRun';
import type { LiveRun } from '../store/useRun';
import { useBay, type Bay } from './useBay';

/** A teed gauge widens the ladder by a little, px. */
const LADDER = { phone: 150, wide: 190, each: 24, height: 380 };
/** What was done last, shown; the rest stands under Practice. */
const DONE_SHOWN = 6;

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
        <Around
          bay={bay}
          setup={setup}
          log={practiceLog}
          run={practice?.run ?? null}
          onLeave={onLeave}
        />
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
  /** The run by the book that was made here, as far as it has come. */
  run: LiveRun | null;
  onLeave: () => void;
}

/** Cab and drawing: side by side on a wide screen, one swipe apart on a phone. */
function Around({ bay, setup, log, run, onLeave }: AroundProps) {
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
  const check = (which: Check, isBrought = false) => {
    if (which.doing.does === 'listen') listenClose(which.doing.way);
    void bay.check(which.id, isBrought).then((answer) => {
      if (answer) log.add(which, answer);
    });
  };
  const job = useBayJob(setup, bay, log);
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
  const jobDoes = `${job.state?.station ?? ''} ${job.state?.told.length ?? 0}`;
  const doing = `${jobDoes} ${teed.map(({ node }) => node).join(' ')} ${log.done.length} ${said.map(({ id }) => id).join(' ')}`;
  const ending =
    setup.hidden === null ? null : (
      <BayEnding
        bay={bay}
        said={said}
        isMended={job.repairs.length > 0}
        onUnsay={say}
        onEnd={log.end}
        onLeave={onLeave}
      />
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
              width={(wide ? LADDER.wide : LADDER.phone) + LADDER.each * teed.length}
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
            {bay.rig.driverSays ? (
              <Txt>{`The driver says: ${bay.rig.driverSays.title.toLowerCase()}.`}</Txt>
            ) : null}
            <Done log={log} />
            <BayWalks
              setup={setup}
              rig={bay.rig}
              log={log}
              onCheck={(which) => check(which, true)}
            />
            {setup.hidden === null ? null : (
              <BaySuspects
                setup={setup}
                rig={bay.rig}
                log={log}
                run={run}
                job={job}
                onCheck={check}
              />
            )}
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
const DRAWN_EVERY = 2;
