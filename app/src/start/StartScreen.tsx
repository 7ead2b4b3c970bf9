import type { Rig, RuleSet, Unit } from '@keen-bleed/contract';
import {
  procedureFor,
  rigTitle,
  ruleSetFor,
  unitsOf,
  unitTitle,
  type RigUnderTest,
  type Step,
} from '@keen-bleed/core';
import { router, useLocalSearchParams } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { useRigs, useRuleSets, useUnit, useUnits, useYard } from '../data/useRecords';
import { coupled } from '../data/coupled';
import { sayAgo, sayMinute } from '../data/when';
import { startRun } from '../store/startRun';
import { space } from '../theme/space';
import { useWide } from '../theme/useWide';
import { Button } from '../ui/Button';
import { OwedFirst } from './OwedFirst';
import { AboutFields, aboutFact, noAbout } from './AboutFields';
import { Choice } from '../ui/Choice';
import { Notice } from '../ui/Notice';
import { Rule } from '../ui/Rule';
import { Screen } from '../ui/Screen';
import { Txt } from '../ui/Txt';
import { Waiting } from '../ui/Waiting';
import { useLastDrained } from '../water/useLastDrained';
import { forRecorders } from '../account/forRecorders';

const DAY_MS = 86_400_000;

/** What is run, by which rules, and whether the tanks are due: chosen before anything is touched. */
export const StartScreen = forRecorders('Start a run', Start);

function Start() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const unit = useUnit(id);
  const units = useUnits();
  const rigs = useRigs();
  const rules = useRuleSets();
  if (!unit.data || !rules.data) {
    return (
      <Screen title="Start a run">
        {unit.error ? (
          <Notice manner="trouble" title="This unit cannot be run" text={unit.error.message} />
        ) : (
          <Waiting />
        )}
      </Screen>
    );
  }
  const rig = rigs.data?.find((each) => each.unitIds.includes(id)) ?? null;
  return (
    <Starting
      unit={unit.data}
      units={units.data ?? []}
      rig={rig}
      sets={rules.data.sets}
      defaultId={rules.data.defaultId}
    />
  );
}

interface StartingProps {
  unit: Unit;
  units: readonly Unit[];
  rig: Rig | null;
  sets: readonly RuleSet[];
  defaultId: string;
}

function Starting({ unit, units, rig, sets, defaultId }: StartingProps) {
  const me = useMe();
  const wide = useWide();
  const whole = useMemo(() => coupled(rig, units), [rig, units]);
  const [alone, setAlone] = useState(false);
  const under: RigUnderTest = whole && !alone ? whole : { unit, towed: [] };
  const [chosen, setChosen] = useState<string | null>(null);
  const usual = ruleSetFor(under.unit, sets, defaultId);
  const ruleSet = sets.find((set) => set.id === chosen) ?? usual;
  const [nowMs] = useState(() => Date.now());
  const last = useLastDrained(me.shopId).of(unit.id);
  const drained = last !== null && nowMs - last.atMs < DAY_MS;
  // Daily, at the lowest point: due until a record of the last day says that it was done.
  const byRecord = drained ? 'not-due' : 'due';
  const [answered, setDrain] = useState<'due' | 'not-due' | null>(null);
  const drain = answered ?? byRecord;
  const [about, setAbout] = useState(noAbout);
  const [trouble, setTrouble] = useState<string | null>(null);
  const yard = useYard();
  const others = (yard.data ?? []).filter(
    (row) => row.open !== null && unitsOf(under).some((each) => each.id === row.unit.id),
  );
  const asksToDrain = ruleSet.steps.some((each) => each.stepId === 'drain' && each.need !== 'off');
  const leftOut = drain === 'due' ? [] : ['drain'];
  const steps = procedureFor(under, ruleSet, leftOut).steps;

  const start = async () => {
    const said = aboutFact(about);
    if ('problem' in said) return setTrouble(said.problem);
    try {
      const rigId = rig && !alone && whole ? rig.id : null;
      const on = { ...under, towed: [...under.towed], rigId, ruleSet, leftOut };
      const id = await startRun(me, on, said.fact ? [said.fact] : []);
      router.replace(`/run/${id}`);
    } catch {
      setTrouble('This device cannot keep a run. Free some space on it, then try again.');
    }
  };

  return (
    <Screen title="Start a run" lead={rigTitle(under)}>
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      <OwedFirst
        rig={under}
        rigId={rig && !alone && whole ? rig.id : null}
        onTrouble={setTrouble}
      />
      {others.map((row) => (
        <Notice
          key={row.unit.id}
          manner="trouble"
          title={`${unitTitle(row.unit)} has a run open since ${sayAgo(row.open?.startedAtMs ?? 0, nowMs)}: ${row.open?.by ?? ''}`}
          text="If they are at it now, two of you use the same air. Both runs will be kept, side by side."
        />
      ))}
      <View
        style={{ flexDirection: wide ? 'row' : 'column', gap: space.wide, marginTop: space.step }}
      >
        <View style={{ gap: space.gap, flex: wide ? 1 : undefined }}>
          {whole ? (
            <Choice
              size="glove"
              label="What is run"
              options={[
                { value: 'rig', title: 'as coupled' },
                { value: 'alone', title: `${unitTitle(unit)} alone` },
              ]}
              value={alone ? 'alone' : 'rig'}
              onChange={(value) => setAlone(value === 'alone')}
            />
          ) : null}
          <Choice
            size="glove"
            label="Rule set"
            options={sets.map((set) => ({ value: set.id, title: set.title }))}
            value={ruleSet.id}
            onChange={setChosen}
          />
          {asksToDrain ? (
            <Choice
              size="glove"
              label="Draining the tanks"
              options={[
                { value: 'due', title: 'due now' },
                { value: 'not-due', title: 'done today' },
              ]}
              value={drain}
              onChange={setDrain}
              note={
                drained
                  ? `Drained ${sayAgo(last.atMs, nowMs)}, ${sayMinute(last.atMs)}.`
                  : 'Every day. Nothing of the last day says that it was done.'
              }
            />
          ) : null}
          <AboutFields value={about} onChange={setAbout} />
          <Button
            title="Start"
            manner="main"
            size="glove"
            label="Start the run"
            onPress={() => void start()}
            style={wide ? { minWidth: 220, alignSelf: 'flex-start' } : { width: '100%' }}
          />
        </View>
        <View style={{ flex: wide ? 1 : undefined }}>
          <StepList steps={steps} />
        </View>
      </View>
    </Screen>
  );
}

/** What will be done, in order. */
function StepList({ steps }: { steps: readonly Step[] }) {
  return (
    <>
      <Txt as="heading" heading={2}>
        {`${steps.length} steps`}
      </Txt>
      <View role="list" aria-label="Steps">
        {steps.map((step, index) => (
          <View key={step.id} role="listitem">
            <Rule />
            <View style={{ flexDirection: 'row', gap: space.step, paddingVertical: space.near }}>
              <Txt as="number" tone="quiet" style={{ width: 26 }}>
                {String(index + 1)}
              </Txt>
              <Txt style={{ flex: 1 }}>{step.title}</Txt>
              {step.required ? null : <Txt tone="quiet">may be left out</Txt>}
            </View>
          </View>
        ))}
        <Rule />
      </View>
    </>
  );
}
