import type { CheckFact, Unit } from '@keen-bleed/contract';
import { CORE_VERSION, partTitle, rigTitle, wantsOf, type RigUnderTest } from '@keen-bleed/core';
import type { Check, CheckAnswer, RigStateId } from '@keen-bleed/core/checks';
import type { Complaint, Evidence } from '@keen-bleed/core/diagnosis';
import { router, useLocalSearchParams } from 'expo-router';
import { useMemo, useState } from 'react';
import { ScrollView, View } from 'react-native';
import { useMe } from '../account/session';
import { useChecks } from '../air/useChecks';
import { rigKey } from '../air/useDrawn';
import { useLessons, useYard } from '../data/useRecords';
import { sayDay } from '../data/when';
import { failuresOf } from '../failures/failuresOf';
import { useWalkRound } from '../parts/useWalkRound';
import { CheckSheet } from '../plan/CheckSheet';
import { PlanBeside } from '../plan/PlanBeside';
import { sayAnswer } from '../plan/sayAnswer';
import { useRigOf } from '../plan/useRigOf';
import { usePrefs } from '../prefs/prefs';
import { jobOfSuspect } from '../store/newJob';
import { startJob } from '../store/startJob';
import { space } from '../theme/space';
import { useWide } from '../theme/useWide';
import { Button } from '../ui/Button';
import { LinkTo } from '../ui/LinkTo';
import { Notice } from '../ui/Notice';
import { Screen } from '../ui/Screen';
import { Txt } from '../ui/Txt';
import { Waiting } from '../ui/Waiting';
import { ComplaintSheet } from './ComplaintSheet';
import { NextCheck } from './NextCheck';
import { SecondOpinion } from './SecondOpinion';
import { SuspectList } from './SuspectList';
import type { Asked, SuspectShown } from './suspecting';
import { useRigEvidence } from './useRigEvidence';
import { useSuspects } from './useSuspects';

/** From what was found on a rig to the part that is most likely at fault, and the check to make next. */
export function SuspectsScreen() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const { units, rigId, error } = useRigOf(id);
  if (!units) {
    return (
      <Screen title="What is it?">
        {error ? (
          <Notice manner="trouble" title="This unit cannot be shown" text={error.message} />
        ) : (
          <Waiting rows={6} />
        )}
      </Screen>
    );
  }
  return <Suspected units={units} rigId={rigId} />;
}

/** Suspects whose unread figures are asked for. */
const READ_OFF = 3;

function Suspected({ units, rigId }: { units: readonly Unit[]; rigId: string | null }) {
  const me = useMe();
  const wide = useWide();
  const { unit: sayIn } = usePrefs();
  const walk = useWalkRound(units, rigId, 'What is it?');
  const rig = useMemo((): RigUnderTest => {
    const [unit, ...towed] = walk.units;
    return { unit: unit!, towed };
  }, [walk.units]);
  const { evidence, run, ready } = useRigEvidence(walk.units, walk);
  const lessons = useLessons();
  const repairs = useMemo(
    () =>
      Object.fromEntries((lessons.data?.faults ?? []).map((each) => [each.faultId, each.times])),
    [lessons.data],
  );
  const yard = useYard();
  const failures = useMemo(
    () => [
      ...new Set(
        walk.units.flatMap(({ id }) =>
          failuresOf(yard.data?.find((row) => row.unit.id === id)).map(({ key }) => key),
        ),
      ),
    ],
    [walk.units, yard.data],
  );
  const [state, setState] = useState<RigStateId | null>(null);
  const asked: Asked | null = ready
    ? {
        rig,
        rigKey: rigKey(rig),
        evidence,
        failures,
        unit: sayIn,
        senses: me.senses ?? null,
        state,
        repairs,
      }
    : null;
  const { told, before, failed, again } = useSuspects(asked);
  const checks = useChecks(rig);
  const [chosen, setChosen] = useState<string | null>(null);
  const [checking, setChecking] = useState<Check | null>(null);
  const [complaining, setComplaining] = useState(false);
  const mayWrite = me.role !== 'viewer' && rig.unit.retiredAtMs === null;

  const answer = (
    check: Check,
    given: CheckAnswer,
    note: string | null,
    photos: readonly Blob[],
  ) => {
    setState(check.state.id);
    void walk.say(
      {
        kind: 'check',
        at: { unitId: walk.units[check.unit]?.id ?? rig.unit.id, partId: check.part },
        checkId: check.id,
        title: check.title,
        answer: given as CheckFact['answer'],
        said: sayAnswer(given, check.answer, sayIn),
        ...(note === null ? {} : { note }),
      },
      photos,
    );
  };
  const [jobTrouble, setJobTrouble] = useState<string | null>(null);
  const openJob = async (suspect: SuspectShown) => {
    const [front, ...towed] = units;
    const open = walk.units.flatMap(({ id }) =>
      failuresOf(yard.data?.find((row) => row.unit.id === id)),
    );
    const once = [...new Map(open.map((each) => [`${each.runId} ${each.key}`, each])).values()];
    try {
      const job = jobOfSuspect(suspect, [front!, ...towed], rigId, once);
      router.push(`/job/${await startJob(me, job)}`);
    } catch {
      setJobTrouble('This device cannot keep a job. Free some space on it, then try again.');
    }
  };
  const name = ({ faults: [first] }: SuspectShown) => {
    if (!first) return;
    void walk.say({
      kind: 'named',
      at: { unitId: walk.units[first.unit]?.id ?? rig.unit.id, partId: first.partId },
      faultId: first.id,
      text: `${first.part}: ${first.title}`,
    });
  };
  const complain = ({ id, title }: Complaint) => {
    setComplaining(false);
    void walk.say({ kind: 'complaint', unitId: rig.unit.id, complaintId: id, text: title });
  };
  const keep = () => {
    if (!told) return;
    const suspects = told.suspects.slice(0, 6).map(({ faults, chance }) => ({
      faultIds: faults.slice(0, 12).map(({ id }) => id),
      chance,
    }));
    const text = told.suspects
      .slice(0, 3)
      .map(
        ({ faults: [first], chance }) =>
          `${first!.part}: ${first!.title} ${Math.round(100 * chance)}`,
      )
      .join('; ')
      .slice(0, 300);
    void walk.say({
      kind: 'ranked',
      unitId: rig.unit.id,
      coreVersion: CORE_VERSION,
      suspects,
      text: text === '' ? 'Nothing stood out' : text,
    });
  };
  const last = walk.state?.entries.at(-1) ?? null;
  const byId = (id: string) => checks.find((check) => check.id === id) ?? null;
  const next = told?.next ?? null;
  const shown = told?.suspects.find(({ faults }) => faults[0]?.id === chosen);
  const ringed = useMemo(
    () =>
      new Set(
        (shown ? [shown] : (told?.suspects ?? []).slice(0, 3)).flatMap(({ faults }) =>
          faults.map(({ unit, partId }) => `${unit} ${partId}`),
        ),
      ),
    [shown, told],
  );
  // What of the likeliest parts nobody has read off widens what a sound rig may show.
  const unread = (told?.suspects ?? [])
    .slice(0, READ_OFF)
    .flatMap(({ faults }) =>
      faults.flatMap(({ unit, partId }) => {
        const of = walk.units[unit];
        const want = of && wantsOf(of, partId).find(({ field }) => field === 'setPsi');
        const isRead = of?.parts?.some(
          (each) => each.partId === partId && each.setPsi !== undefined,
        );
        return of && want && !isRead
          ? [`${want.title.toLowerCase()} of ${(partTitle(of, partId) ?? partId).toLowerCase()}`]
          : [];
      }),
    )
    .at(0);
  const list = (
    <View style={{ gap: space.step }}>
      <View style={{ gap: space.hair }}>
        <Txt as="screenTitle" heading={1}>
          What is it?
        </Txt>
        <Txt tone="quiet">{`${rigTitle(rig)} · in 100 rigs that read like this`}</Txt>
      </View>
      <Known
        evidence={evidence}
        run={run}
        onComplain={mayWrite ? () => setComplaining(true) : null}
      />
      {(walk.trouble ?? jobTrouble) ? (
        <Notice manner="trouble" title={walk.trouble ?? jobTrouble ?? ''} />
      ) : null}
      {failed ? (
        <Notice
          manner="trouble"
          title="Working it out was broken off"
          text="Nothing that was recorded is lost."
          action={{ title: 'Work it out again', onPress: again }}
        />
      ) : null}
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
          onName={mayWrite ? name : null}
          onJob={mayWrite ? (suspect) => void openJob(suspect) : null}
          onShow={wide ? null : () => router.push(`/unit/${rig.unit.id}/air`)}
        />
      ) : failed ? null : (
        <View style={{ gap: space.near }}>
          <Txt as="small" tone="quiet" live="polite">
            Working out what this rig would show under each fault. It is kept for the next time.
          </Txt>
          <Waiting rows={5} />
        </View>
      )}
      {unread ? (
        <Txt
          as="small"
          tone="quiet"
        >{`Not known yet: ${unread}. Read it off: suspects stand surer then.`}</Txt>
      ) : null}
      {told && told.table.length > 0 ? <SecondOpinion table={told.table} /> : null}
      {told && mayWrite ? (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near }}>
          <Button title="Keep this ranking in the visit" onPress={keep} />
          {walk.visitId ? (
            <LinkTo to={`/visit/${walk.visitId}`}>
              <Txt as="bodyBold" tone="accent">
                The visit in which this is kept
              </Txt>
            </LinkTo>
          ) : null}
        </View>
      ) : null}
    </View>
  );
  const foot = next ? (
    <View>
      {last && walk.visitId && mayWrite && !walk.state?.closed ? (
        <View
          style={{
            flexDirection: 'row',
            alignItems: 'center',
            gap: space.near,
            paddingHorizontal: space.gap,
          }}
        >
          <Txt as="small" tone="quiet" style={{ flex: 1 }} lines={1}>
            {`Last: ${'title' in last ? `${last.title}: ${last.said}` : last.text}`}
          </Txt>
          <Button
            title="Undo"
            manner="quiet"
            label="Take the last entry back"
            onPress={() => void walk.say({ kind: 'retract', target: last.id })}
          />
        </View>
      ) : null}
      <NextCheck
        next={next}
        check={next.next === 'check' ? byId(next.checkId) : null}
        onAnswer={mayWrite ? (check, given) => answer(check, given, null, []) : null}
        onOpen={mayWrite ? (checkId) => setChecking(byId(checkId)) : null}
      />
    </View>
  ) : null;
  const sheets = (
    <>
      {checking ? (
        <CheckSheet
          check={checking}
          unit={[rig.unit, ...rig.towed][checking.unit]}
          onDone={(given, note, photos) => {
            setChecking(null);
            answer(checking, given, note, photos);
          }}
          onLeave={() => setChecking(null)}
        />
      ) : null}
      {complaining ? (
        <ComplaintSheet onDone={complain} onLeave={() => setComplaining(false)} />
      ) : null}
    </>
  );
  if (wide) {
    return (
      <View role="main" style={{ flex: 1, flexDirection: 'row' }}>
        <ScrollView style={{ flex: 1 }} contentContainerStyle={{ padding: space.wide }}>
          {list}
        </ScrollView>
        <ScrollView style={{ width: 430, flexGrow: 0 }} contentContainerStyle={{ gap: space.gap }}>
          {foot}
          <View style={{ padding: space.gap }}>
            <PlanBeside rig={rig} title="Where they sit" at={ringed} />
          </View>
        </ScrollView>
        {sheets}
      </View>
    );
  }
  return (
    <View role="main" style={{ flex: 1 }}>
      <ScrollView style={{ flex: 1 }} contentContainerStyle={{ padding: space.gap }}>
        {list}
      </ScrollView>
      {foot ? <ScrollView style={{ maxHeight: '50%', flexGrow: 0 }}>{foot}</ScrollView> : null}
      {sheets}
    </View>
  );
}

/** What is weighed, in a line, and where to say more. */
function Known({
  evidence,
  run,
  onComplain,
}: {
  evidence: readonly Evidence[];
  run: { id: string; atMs: number } | null;
  onComplain: (() => void) | null;
}) {
  const count = (kind: Evidence['kind']) => evidence.filter((each) => each.kind === kind).length;
  const some = (n: number, one: string, many: string) =>
    n === 0 ? null : n === 1 ? one : `${n} ${many}`;
  const words = [
    some(count('answer'), '1 check', 'checks'),
    some(count('complaint'), 'what the driver says', 'complaints'),
    some(count('named'), 'what was named', 'names'),
    some(count('repair'), '1 repair', 'repairs'),
  ].filter(Boolean);
  const weighs = count('run') > 0 && run ? `the run of ${sayDay(run.atMs)}` : null;
  const all = [weighs, ...words].filter(Boolean);
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: space.near }}>
      <Txt as="small">
        {all.length === 0
          ? 'Nothing is weighed yet: make a run, or say what the driver complains of.'
          : `Weighed: ${all.join(', ')}.`}
      </Txt>
      {run && weighs ? (
        <LinkTo to={`/run/${run.id}`}>
          <Txt as="small" tone="accent">
            Read the run
          </Txt>
        </LinkTo>
      ) : null}
      {onComplain ? <Button title="The driver says…" onPress={onComplain} /> : null}
    </View>
  );
}
