import type { Figure, Gauge, GaugeRole, School } from '@keen-bleed/contract';
import {
  gaugeWord,
  headVerdict,
  itemsOf,
  sayLevel,
  sayParts,
  sayStep,
  sayValue,
  type Doubt,
  type HoldNow,
  type RunState,
  type SettlingNow,
  type Step,
} from '@keen-bleed/core';
import { View } from 'react-native';
import { sayClock } from '../../data/when';
import { space } from '../../theme/space';
import { Button } from '../../ui/Button';
import { Caution } from '../../ui/Caution';
import { Notice } from '../../ui/Notice';
import { Segments } from '../../ui/Segments';
import { Txt } from '../../ui/Txt';
import { LookList } from './LookList';
import { StopMeasures } from '../../stop/StopMeasures';
import type { RunDesk } from '../desk/useRunDesk';

/** Who reads the needle: an eye, or a gauge set that is teed in. */
export interface HowRead {
  byGauge: boolean;
  /** A made-up gauge set is for practice, and for shops in demo mode. */
  maySimulate: boolean;
  choose: (byGauge: boolean) => void;
}

interface StepPaneProps {
  state: RunState;
  gauge: Gauge;
  school: School;
  desk: RunDesk;
  /** Figures of the run so far. */
  figures: readonly Figure[];
  doubts: readonly Doubt[];
  /** There is little width: on a phone beside the ladder. */
  narrow: boolean;
  onSkip: () => void;
  reading: HowRead;
}

/** The step that is waited on: what to do, its dangers, its clock, and what came out so far. */
export function StepPane({
  state,
  gauge,
  school,
  desk,
  figures,
  doubts,
  narrow,
  onSkip,
  reading,
}: StepPaneProps) {
  const { step } = state;
  if (!step) return null;
  const hold = state.hold ? desk.hold : null;
  const items = itemsOf(step);
  const sayings = step.say.map((line) => (
    <Txt key={line} tone="quiet">
      {sayStep(line, gauge.unit, school)}
    </Txt>
  ));
  return (
    <View style={{ gap: space.step }}>
      <Txt as="stepTitle" heading={2} live="polite">
        {step.title}
      </Txt>
      {doubts.map((doubt) => (
        <Notice key={doubt.what} manner="trouble" title={doubt.what} text={doubt.remedy} />
      ))}
      {hold ? (
        <HoldClock hold={hold} />
      ) : desk.settling ? (
        <SettleClock settling={desk.settling} limit={limitOf(step, gauge)} />
      ) : (
        <>
          <LastHold state={state} figures={figures} desk={desk} />
          <Caution lines={step.cautions} narrow={narrow} />
        </>
      )}
      {hold || desk.settling ? null : sayings}
      {step.act.kind === 'ready' ? (
        <>
          <Checks checks={step.act.checks} />
          {reading.maySimulate ? (
            <View style={{ gap: space.hair }}>
              <Txt as="smallBold">How it is read</Txt>
              <Segments
                label="How it is read"
                size="glove"
                options={[
                  { value: 'eye', title: 'by eye' },
                  { value: 'gauge', title: 'by a simulated gauge set' },
                ]}
                value={reading.byGauge ? 'gauge' : 'eye'}
                onChange={(value) => reading.choose(value === 'gauge')}
              />
            </View>
          ) : null}
          {reading.byGauge ? null : (
            <View style={{ gap: space.hair }}>
              <Txt as="smallBold">Gauge you will read</Txt>
              <Segments
                label="Gauge you will read"
                size="glove"
                options={step.act.gauges.map((role: GaugeRole) => ({
                  value: role,
                  title: gaugeWord(role, school),
                }))}
                value={desk.gaugeRole}
                onChange={desk.setGaugeRole}
              />
            </View>
          )}
        </>
      ) : null}
      {state.gauge === 'master' && isOnePressure(step) ? (
        <View style={{ gap: space.hair }}>
          <Txt as="smallBold">Taken</Txt>
          <Segments
            label="Taken"
            size="glove"
            options={[
              { value: 'once', title: 'once' },
              { value: 'mean', title: 'mean of three' },
            ]}
            value={desk.takes > 1 ? 'mean' : 'once'}
            onChange={(value) => desk.takeSeveral(value === 'mean')}
          />
          {desk.takes > 1 ? (
            <Txt as="small" tone="quiet">
              Small strokes near it each time. For a warning the gauge is in the lower tank, for a
              knob in the higher.
            </Txt>
          ) : null}
        </View>
      ) : null}
      {items.length > 0 ? (
        <LookList items={items} school={school} answers={desk.answers} onAnswer={desk.answer} />
      ) : null}
      {step.act.kind === 'stop' ? (
        <StopMeasures
          stepId={step.id}
          act={step.act}
          maySimulate={reading.maySimulate}
          tell={desk.tell}
        />
      ) : null}
      {hold ? <HoldSoFar state={state} gauge={gauge} figures={figures} /> : null}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near }}>
        {hold ? (
          <Button title="Longer" size="glove" label="Hold a minute longer" onPress={desk.longer} />
        ) : null}
        {hold && !hold.over ? (
          <Button
            title={desk.readingNow ? 'Watch on' : 'Read now'}
            size="glove"
            label={
              desk.readingNow
                ? 'Go on watching for a line'
                : 'End the hold with a reading of the needle'
            }
            onPress={desk.readNow}
          />
        ) : null}
        {hold && step.act.kind === 'hold' && step.act.settle?.proposal.from === 'after-pedal' ? (
          <Button
            title="Foot moved"
            size="glove"
            label="The foot moved: begin this hold again"
            onPress={desk.footMoved}
          />
        ) : null}
        {step.act.kind === 'marks' && step.act.never
          ? step.act.never.options.map(({ value, title }) => (
              <Button
                key={value}
                title={sayParts(title, school)}
                label={`${step.title}: ${sayParts(title, school)}`}
                size="glove"
                onPress={() =>
                  desk.tell({ kind: 'look', stepId: step.id, answers: { never: value } })
                }
              />
            ))
          : null}
        {step.maySkip ? (
          <Button
            title="Skip"
            manner="quiet"
            size="glove"
            label={`Skip ${step.title}`}
            onPress={onSkip}
          />
        ) : null}
      </View>
      {/* What can be pressed stands before what can be read. */}
      {hold && step.act.kind === 'hold' && step.act.because ? (
        <Txt as="small" tone="quiet">
          {step.act.because}
        </Txt>
      ) : null}
    </View>
  );
}

/** A step that reads off the pressure at which something happens: it can be taken several times over. */
const isOnePressure = ({ act, reckon }: Step): boolean =>
  act.kind === 'marks' && reckon.some(({ kind }) => kind === 'level' || kind === 'difference');

function Checks({ checks }: { checks: readonly string[] }) {
  return (
    <View role="list" style={{ gap: space.near }}>
      {checks.map((check) => (
        <View key={check} role="listitem" style={{ flexDirection: 'row', gap: space.near }}>
          <Txt tone="quiet">—</Txt>
          <Txt style={{ flex: 1 }}>{check}</Txt>
        </View>
      ))}
    </View>
  );
}

/** A hold that has just ended by itself and does not tell yet can still be made longer: no air was used since. */
function LastHold({
  state,
  figures,
  desk,
}: {
  state: RunState;
  figures: readonly Figure[];
  desk: RunDesk;
}) {
  const ended = state.undoable;
  if (ended?.kind !== 'hold-over') return null;
  const open = figures.find(
    (figure) => figure.stepId === ended.stepId && headVerdict(figure) === 'cant-tell',
  );
  if (!open) return null;
  return (
    <Notice
      title="The hold does not tell yet"
      text={open.settle ?? open.why}
      action={{ title: 'Hold a minute more', onPress: desk.longer }}
    />
  );
}

/** A rate with more doubt than this, psi/min, says nothing yet. */
const WORTH_SHOWING = 3;

function HoldClock({ hold }: { hold: HoldNow }) {
  return (
    <View>
      <Txt as="clock" testID="clock">
        {sayClock(hold.leftMs)}
      </Txt>
      <Txt as="small" tone="quiet" live="polite">
        {hold.over ? 'time is up' : 'left'}
      </Txt>
    </View>
  );
}

/** The rate a hold must tell, in words; null where it has no limit. */
const limitOf = ({ act }: Step, gauge: Gauge) =>
  act.kind === 'hold' && act.limitPsiPerMin !== undefined
    ? sayValue(act.limitPsiPerMin, 'psi/min', gauge.unit)
    : null;

/** The wait before a hold: air that was just pressed together or let down moves the needle by itself. */
function SettleClock({ settling, limit }: { settling: SettlingNow; limit: string | null }) {
  const isOver = settling.leftMs === 0;
  return (
    <View>
      <Txt as="clock" testID="settling">
        {sayClock(settling.leftMs)}
      </Txt>
      <Txt as="small" tone="quiet" live="polite">
        {isOver
          ? 'The air has settled: set the needle and start.'
          : `until the air has settled. Sooner, heat would look like a leak or hide one${limit === null ? '' : ` of ${limit}`}.`}
      </Txt>
    </View>
  );
}

function HoldSoFar({
  state,
  gauge,
  figures,
}: {
  state: RunState;
  gauge: Gauge;
  figures: readonly Figure[];
}) {
  const act = state.step?.act;
  const settle = act?.kind === 'hold' ? act.settle?.key : undefined;
  const marks = state.marks.filter((mark) => mark.stepId === state.step?.id && mark.key !== settle);
  const leak = figures.find(
    (figure) => figure.unit === 'psi/min' && figure.stepId === state.step?.id,
  );
  return (
    <View style={{ gap: space.hair }} testID="hold-so-far">
      <Txt as="number">
        {marks.map((mark) => sayLevel(mark.readingPsi, gauge.unit)).join(', ')}
        <Txt as="small" tone="quiet">{` ${gauge.unit}`}</Txt>
      </Txt>
      {typeof leak?.value === 'number' &&
      leak.standardUncertainty !== null &&
      leak.standardUncertainty < WORTH_SHOWING ? (
        <>
          <Txt>{`about ${sayValue(leak.value, leak.unit, gauge.unit)}`}</Txt>
          <Txt as="small" tone="quiet">
            {`± ${sayValue(2 * leak.standardUncertainty, leak.unit, gauge.unit)} so far`}
          </Txt>
        </>
      ) : (
        <Txt as="small" tone="quiet">
          No line crossed, no touch needed: it ends by itself.
        </Txt>
      )}
    </View>
  );
}
