import type { Limit, Need, RuleSet, RuleSetDraft, Switches } from '@keen-bleed/contract';
import { checkForm } from '@keen-bleed/contract/forms';
import {
  checkRuleSet,
  figureTitles,
  fromPsi,
  isCriticalStep,
  rounded,
  ruleSetById,
  sayLimit,
  stepMakerById,
  switchInfos,
  takenOver,
  toPsi,
} from '@keen-bleed/core';
import { router, useLocalSearchParams } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { sessionEnded, useMe } from '../account/session';
import { ask, asProblem } from '../wire/api';
import { useRuleSets } from '../data/useRecords';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { useWide } from '../theme/useWide';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Notice } from '../ui/Notice';
import { Rule } from '../ui/Rule';
import { Screen } from '../ui/Screen';
import { Segments } from '../ui/Segments';
import { Toggle } from '../ui/Toggle';
import { Txt } from '../ui/Txt';
import { Waiting } from '../ui/Waiting';
import { LookTable } from './LookTable';
import { MissedNotice } from './MissedNotice';
import { boundOf, draftOfRuleSet, movedStep } from './ruleSetDraft';

/** One rule set: its order, switches and limits. A lead changes the shop's own; those that ship are read. */
export function RuleSetScreen() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const rules = useRuleSets();
  const set = rules.data?.sets.find((each) => each.id === id);
  if (!set) {
    return (
      <Screen title="Rule set">
        {rules.isLoading || rules.isValidating ? (
          <Waiting />
        ) : (
          <Notice manner="trouble" title="There is no such rule set in this shop" />
        )}
      </Screen>
    );
  }
  return <RuleSetEditor key={set.id} set={set} onSaved={() => rules.mutate()} />;
}

const needTitles: readonly { value: Need; title: string }[] = [
  { value: 'must', title: 'must' },
  { value: 'may', title: 'may' },
  { value: 'off', title: 'off' },
];

function RuleSetEditor({ set: opened, onSaved }: { set: RuleSet; onSaved: () => unknown }) {
  const me = useMe();
  const wide = useWide();
  const [set, setSet] = useState(opened);
  const [draft, setDraft] = useState<RuleSetDraft>(() => draftOfRuleSet(opened));
  const [trouble, setTrouble] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const mayEdit = me.role === 'lead' && set.basedOn !== null;
  const changed = JSON.stringify(draft) !== JSON.stringify(draftOfRuleSet(set));
  const change = (part: Partial<RuleSetDraft>) => setDraft({ ...draft, ...part });
  const shipped = set.basedOn === null ? null : ruleSetById(set.basedOn);
  const save = async (draft: RuleSetDraft) => {
    const wrong = checkForm('ruleSetDraft', draft)[0] ?? checkRuleSet(draft)[0];
    if (wrong) {
      setTrouble(wrong.message);
      return;
    }
    setBusy(true);
    try {
      const saved = await ask('PUT', `/api/v1/rule-sets/${set.id}`, {
        revision: set.revision,
        draft,
      });
      setSet(saved);
      setDraft(draftOfRuleSet(saved));
      setTrouble(null);
      onSaved();
    } catch (error) {
      const problem = asProblem(error);
      if (problem.code === 'not-signed-in') sessionEnded();
      else setTrouble(problem.message);
    } finally {
      setBusy(false);
    }
  };
  const lead = set.basedOn
    ? `The shop’s own, revision ${set.revision}`
    : 'Ships with the app. Copy it to change anything.';
  return (
    <Screen title={set.title} lead={lead}>
      {shipped && mayEdit ? (
        <MissedNotice
          draft={draft}
          shipped={shipped}
          onTakeOver={() => {
            const taken = takenOver(draft, shipped);
            setDraft(taken);
            void save(taken);
          }}
        />
      ) : null}
      {mayEdit ? (
        <View style={{ maxWidth: 420, marginTop: space.step }}>
          <Field
            label="Name of the rule set"
            value={draft.title}
            onChange={(title) => change({ title })}
          />
        </View>
      ) : null}
      <View
        style={{ flexDirection: wide ? 'row' : 'column', gap: space.wide, marginTop: space.gap }}
      >
        <View style={{ flex: wide ? 1 : undefined, gap: space.wide }}>
          <StepTable draft={draft} mayEdit={mayEdit} onChange={(steps) => change({ steps })} />
          <LookTable draft={draft} mayEdit={mayEdit} onChange={setDraft} />
          <SwitchTable
            switches={draft.switches}
            mayEdit={mayEdit}
            onChange={(switches) => change({ switches })}
          />
        </View>
        <View style={{ flex: wide ? 1 : undefined }}>
          <LimitTable draft={draft} mayEdit={mayEdit} onChange={(limits) => change({ limits })} />
        </View>
      </View>
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      <View style={{ flexDirection: 'row', gap: space.step, marginTop: space.gap }}>
        <Button title="Back" size="glove" onPress={() => router.replace('/rules')} />
        {mayEdit ? (
          <Button
            title={changed ? 'Save' : 'Saved'}
            manner="main"
            size="glove"
            busy={busy}
            disabled={!changed}
            onPress={() => void save(draft)}
            style={{ flexGrow: 1, maxWidth: 320 }}
          />
        ) : null}
      </View>
    </Screen>
  );
}

interface TableProps {
  draft: RuleSetDraft;
  mayEdit: boolean;
}

function StepTable({
  draft,
  mayEdit,
  onChange,
}: TableProps & { onChange: (steps: RuleSetDraft['steps']) => void }) {
  return (
    <View>
      <Txt as="heading" heading={2}>
        Steps, in their order
      </Txt>
      <View role="list" aria-label="Steps">
        {draft.steps.map((step, at) => {
          const title = stepMakerById(step.stepId)?.title ?? step.stepId;
          return (
            <View key={step.stepId} role="listitem">
              <Rule />
              <View
                style={{
                  flexDirection: 'row',
                  alignItems: 'center',
                  flexWrap: 'wrap',
                  gap: space.near,
                  paddingVertical: space.hair,
                }}
              >
                <Txt
                  style={{ flexGrow: 1, flexBasis: 150, paddingVertical: space.hair }}
                  tone={step.need === 'off' ? 'quiet' : 'ink'}
                >
                  {title}
                </Txt>
                {mayEdit && at > 0 ? (
                  <View style={{ flexDirection: 'row', alignItems: 'center' }}>
                    <Button
                      manner="quiet"
                      title="↑"
                      label={`${title} earlier`}
                      disabled={at < 2}
                      onPress={() => onChange(movedStep(draft.steps, at, -1))}
                    />
                    <Button
                      manner="quiet"
                      title="↓"
                      label={`${title} later`}
                      disabled={at === draft.steps.length - 1}
                      onPress={() => onChange(movedStep(draft.steps, at, 1))}
                    />
                    <Segments
                      label={`${title} needed`}
                      options={needTitles}
                      value={step.need}
                      onChange={(need) =>
                        onChange(
                          draft.steps.map((each, index) =>
                            index === at ? { ...each, need } : each,
                          ),
                        )
                      }
                    />
                  </View>
                ) : (
                  <Txt tone="quiet">{step.need}</Txt>
                )}
              </View>
              {at > 0 && step.need !== 'off' ? (
                mayEdit ? (
                  <Toggle
                    label="A failure takes the vehicle out of service"
                    spoken={`${title}: a failure takes the vehicle out of service`}
                    value={isCriticalStep(draft, step.stepId)}
                    onChange={(critical) =>
                      onChange(
                        draft.steps.map((each, index) =>
                          index === at ? { ...each, critical } : each,
                        ),
                      )
                    }
                  />
                ) : isCriticalStep(draft, step.stepId) ? (
                  <Txt as="small" tone="quiet">
                    A failure takes the vehicle out of service
                  </Txt>
                ) : null
              ) : null}
            </View>
          );
        })}
        <Rule />
      </View>
    </View>
  );
}

function SwitchTable({
  switches,
  mayEdit,
  onChange,
}: {
  switches: Switches;
  mayEdit: boolean;
  onChange: (switches: Switches) => void;
}) {
  return (
    <View style={{ gap: space.gap }}>
      <Txt as="heading" heading={2}>
        Where practitioners disagree
      </Txt>
      {switchInfos.map((info) => {
        // Where a copy made earlier does not say it, it is as it was then: the first of the options.
        const options = info.options.map(({ value, title }) => ({ value: value ?? '', title }));
        const value = switches[info.key] ?? options[0]?.value ?? '';
        return (
          <View key={info.key} style={{ gap: space.hair }}>
            <Txt as="smallBold">{info.title}</Txt>
            {mayEdit ? (
              <Segments
                label={info.title}
                options={options}
                value={value}
                onChange={(chosen) => onChange({ ...switches, [info.key]: chosen })}
              />
            ) : (
              <Txt as="bodyBold">
                {options.find((option) => option.value === value)?.title ?? value}
              </Txt>
            )}
            <Txt as="small" tone="quiet">
              {info.why}
            </Txt>
          </View>
        );
      })}
    </View>
  );
}

const couplingWords = {
  alone: 'alone',
  'one-trailer': 'one trailer',
  'two-trailers': 'two trailers',
} as const;

const circuitWords = { dual: 'dual circuits', single: 'single circuit' } as const;

/** Where a limit applies, in words; nothing where it applies everywhere. */
function whereOf(limit: Limit): string {
  const coupled = limit.coupled.length < 3 ? limit.coupled.map((each) => couplingWords[each]) : [];
  const circuits =
    limit.circuits.length < 2 ? limit.circuits.map((each) => circuitWords[each]) : [];
  const kinds = limit.kinds.length < 3 ? limit.kinds : [];
  return [...kinds, ...circuits, ...coupled].join(', ');
}

function LimitTable({
  draft,
  mayEdit,
  onChange,
}: TableProps & { onChange: (limits: RuleSetDraft['limits']) => void }) {
  return (
    <View>
      <Txt as="heading" heading={2}>
        Limits
      </Txt>
      <View role="list" aria-label="Limits">
        {draft.limits.map((limit, at) => (
          <View key={limit.id} role="listitem">
            <Rule />
            <LimitLine
              limit={limit}
              mayEdit={mayEdit}
              onChange={(changed) =>
                onChange(draft.limits.map((each, index) => (index === at ? changed : each)))
              }
            />
          </View>
        ))}
        <Rule />
      </View>
    </View>
  );
}

interface LimitLineProps {
  limit: Limit;
  mayEdit: boolean;
  onChange: (limit: Limit) => void;
}

function LimitLine({ limit, mayEdit, onChange }: LimitLineProps) {
  const { unit } = usePrefs();
  const [open, setOpen] = useState(false);
  const where = whereOf(limit);
  return (
    <View style={{ paddingVertical: space.near, gap: 2 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: space.step }}>
        <View style={{ flex: 1 }}>
          <Txt as="bodyBold">{figureTitles[limit.figure]}</Txt>
          {where ? (
            <Txt as="small" tone="quiet">
              {where}
            </Txt>
          ) : null}
        </View>
        <Txt as="numberBold">{sayLimit(limit, limit.unit, unit)}</Txt>
        {mayEdit ? (
          <Button
            manner="quiet"
            title={open ? 'Close' : 'Change'}
            label={`${open ? 'Close' : 'Change'} ${figureTitles[limit.figure]}${where ? `, ${where}` : ''}`}
            onPress={() => setOpen(!open)}
          />
        ) : null}
      </View>
      <Txt as="small" tone="quiet">
        {limit.tag === 'house' ? `house: ${limit.source}` : limit.source}
      </Txt>
      {open ? (
        <LimitForm
          limit={limit}
          onDone={(changed) => {
            onChange(changed);
            setOpen(false);
          }}
        />
      ) : null}
    </View>
  );
}

function LimitForm({ limit, onDone }: { limit: Limit; onDone: (limit: Limit) => void }) {
  const { unit } = usePrefs();
  const isPressure = limit.unit.startsWith('psi');
  const shown = (value: number | null) =>
    value === null ? '' : rounded(isPressure ? fromPsi(value, unit) : value, 2);
  const [min, setMin] = useState(() => shown(limit.min));
  const [max, setMax] = useState(() => shown(limit.max));
  const [trouble, setTrouble] = useState<string | null>(null);
  const words = isPressure ? limit.unit.replace('psi', unit) : limit.unit;
  const done = () => {
    const low = boundOf(min);
    const high = boundOf(max);
    if (!low || !high) {
      setTrouble('Numbers, or nothing where there is no such end.');
      return;
    }
    const kept = (value: number | null) =>
      value === null || !isPressure ? value : toPsi(value, unit);
    onDone({
      ...limit,
      min: kept(low.value),
      max: kept(high.value),
      // Whoever set it, it is no longer what the source says.
      source: 'set by the shop’s lead',
      tag: 'house',
    });
  };
  return (
    <View style={{ gap: space.near, paddingTop: space.near }}>
      <View style={{ flexDirection: 'row', gap: space.step }}>
        <View style={{ flex: 1 }}>
          <Field label="At least" hint={words} numeric value={min} onChange={setMin} />
        </View>
        <View style={{ flex: 1 }}>
          <Field label="At most" hint={words} numeric value={max} onChange={setMax} />
        </View>
      </View>
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      <Button title="Set limit" onPress={done} style={{ alignSelf: 'flex-start' }} />
    </View>
  );
}
