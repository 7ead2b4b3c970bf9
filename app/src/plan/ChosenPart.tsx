import type { CheckFact } from '@keen-bleed/contract';
import {
  partListOf,
  partOfEntry,
  photosOf,
  plumbingOf,
  sayEntry,
  type PlumbedLine,
  type RigUnderTest,
} from '@keen-bleed/core';
import { valvesOf, type Check } from '@keen-bleed/core/checks';
import type { PlanSymbol } from '@keen-bleed/core/drawing';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { useChecks } from '../air/useChecks';
import { useFound } from '../data/useRecords';
import { sayDay } from '../data/when';
import { PartSheet } from '../parts/PartSheet';
import type { WalkRound } from '../parts/useWalkRound';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { LinkTo } from '../ui/LinkTo';
import { Txt } from '../ui/Txt';
import { CheckSheet } from './CheckSheet';
import { LineSheet } from './LineSheet';
import { PartCard } from './PartCard';
import { sayAnswer } from './sayAnswer';
import { useOpenFailures } from './useOpenFailures';
import { useExplained } from './usePlan';

interface ChosenPartProps {
  rig: RigUnderTest;
  symbol: PlanSymbol;
  walk: WalkRound;
  onLeave: () => void;
}

/** The part that was tapped, with what can be said and done at it. */
export function ChosenPart({ rig, symbol, walk, onLeave }: ChosenPartProps) {
  const me = useMe();
  const { unit: sayIn } = usePrefs();
  const [inside, setInside] = useState<string | null>(null);
  const [saying, setSaying] = useState(false);
  const [checking, setChecking] = useState<Check | null>(null);
  const [lining, setLining] = useState<PlumbedLine | null>(null);
  const unit = walk.units[symbol.unit];
  const partId = inside ?? symbol.part;
  const list = useMemo(() => (unit ? partListOf(unit) : []), [unit]);
  const { lines, problems } = useMemo(
    () => (unit ? plumbingOf(unit) : { lines: [], problems: [] }),
    [unit],
  );
  const explained = useExplained(rig, symbol.unit, partId);
  const checks = useChecks(rig);
  const found = useFound(unit?.id ?? null);
  const failures = useOpenFailures(rig);
  const part = list.find(({ id }) => id === partId);
  if (!unit || !part) return null;
  const mayWrite = me.role !== 'viewer' && unit.retiredAtMs === null;
  const own = checks.filter(
    (check) =>
      check.unit === symbol.unit && (check.part === partId || partId.startsWith(`${check.part}.`)),
  );
  const atPart = lines.filter(({ from, to }) => from.part === partId || to.part === partId);
  const at = { unitId: unit.id, partId };
  const here = (walk.state?.entries ?? []).filter((entry) => {
    const of = partOfEntry(entry);
    return of?.unitId === unit.id && of.partId === partId;
  });
  const history = [
    ...here.map((entry) => ({
      id: entry.id,
      when: 'in this visit',
      what: sayEntry(entry),
      photos: [...photosOf(entry)],
    })),
    ...(found.data ?? [])
      .filter((entry) => entry.partId === partId && !here.some(({ id }) => id === entry.id))
      .map((entry) => ({
        id: entry.id,
        when: `${sayDay(entry.atMs)}, ${entry.by}`,
        what: entry.said,
        photos: entry.photos,
      })),
  ];
  const seen = () => {
    const {
      partId: _p,
      foundAtMs: _f,
      standing: _s,
      ...data
    } = part.record ?? { partId: '', foundAtMs: 0, standing: 'fitted' };
    void walk.say({ kind: 'part', at, ...data, standing: 'fitted' });
  };
  return (
    <View style={{ gap: space.step }}>
      <PartCard
        unit={unit}
        part={part}
        sayIn={sayIn}
        state={null}
        now={null}
        explained={explained}
        checks={own}
        onCheck={mayWrite ? setChecking : null}
        problems={problems
          .filter(({ at: where }) => where === partId || atPart.some(({ id }) => id === where))
          .map(({ text }) => text)}
        history={history}
        failures={failures
          .filter(({ keys }) => keys.includes(`${symbol.unit} ${partId}`))
          .map(({ text }) => `Open failure: ${text}`)}
      >
        {mayWrite ? (
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near }}>
            {part.record?.standing === 'fitted' ? null : (
              <Button
                title="It is as said"
                manner="main"
                label={`${part.title}: seen, it is fitted`}
                onPress={seen}
              />
            )}
            <Button
              title="Say more"
              label={`${part.title}: say more`}
              onPress={() => setSaying(true)}
            />
            <Button title="Close" manner="quiet" onPress={onLeave} />
          </View>
        ) : (
          <Button
            title="Close"
            manner="quiet"
            onPress={onLeave}
            style={{ alignSelf: 'flex-start' }}
          />
        )}
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: space.gap }}>
          {valvesOf(rig, own).map((valve) => (
            <LinkTo
              key={valve.part}
              to={`/unit/${rig.unit.id}/bench?valve=${valve.unit}.${valve.part}`}
            >
              <Txt as="bodyBold" tone="accent">
                On the bench
              </Txt>
            </LinkTo>
          ))}
          {own.some(({ doing }) => doing.does === 'wet') ? (
            <LinkTo to={`/unit/${rig.unit.id}/hunt`}>
              <Txt as="bodyBold" tone="accent">
                Hunt a leak
              </Txt>
            </LinkTo>
          ) : null}
          {own.some(({ doing }) => doing.does === 'drain') ? (
            <LinkTo to={`/unit/${rig.unit.id}/water`}>
              <Txt as="bodyBold" tone="accent">
                Water
              </Txt>
            </LinkTo>
          ) : null}
        </View>
        {symbol.folded.length > 0 ? (
          <View style={{ gap: space.hair }}>
            <Txt as="bodyBold">{inside ? 'Beside it' : 'With it'}</Txt>
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near }}>
              {[symbol.part, ...symbol.folded]
                .filter((id) => id !== partId)
                .map((id) => (
                  <Button
                    key={id}
                    title={list.find((each) => each.id === id)?.title ?? id}
                    onPress={() => setInside(id === symbol.part ? null : id)}
                  />
                ))}
            </View>
          </View>
        ) : null}
      </PartCard>
      {mayWrite && atPart.length > 0 ? (
        <View style={{ gap: space.hair }}>
          <Txt as="bodyBold">Lines</Txt>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near }}>
            {atPart.slice(0, 8).map((line) => (
              <Button
                key={line.id}
                title={line.title}
                label={`Line: ${line.title}`}
                onPress={() => setLining(line)}
              />
            ))}
          </View>
        </View>
      ) : null}
      {walk.visitId ? (
        <LinkTo to={`/visit/${walk.visitId}`}>
          <Txt as="bodyBold" tone="accent">
            The visit in which this is kept
          </Txt>
        </LinkTo>
      ) : null}
      {saying ? (
        <PartSheet
          part={part}
          onDone={(said, photos) => {
            setSaying(false);
            void walk.say({ kind: 'part', at, ...said }, photos);
          }}
          onLeave={() => setSaying(false)}
        />
      ) : null}
      {checking ? (
        <CheckSheet
          check={checking}
          unit={unit}
          onDone={(answer, note, photos) => {
            setChecking(null);
            void walk.say(
              {
                kind: 'check',
                at: { unitId: unit.id, partId: checking.part },
                checkId: checking.id,
                title: checking.title,
                answer: answer as CheckFact['answer'],
                said: sayAnswer(answer, checking.answer, sayIn),
                ...(note === null ? {} : { note }),
              },
              photos,
            );
          }}
          onLeave={() => setChecking(null)}
        />
      ) : null}
      {lining ? (
        <LineSheet
          unit={unit}
          line={lining}
          onDone={(said) => {
            setLining(null);
            void walk.say({ kind: 'line', at: { unitId: unit.id, lineId: lining.id }, ...said });
          }}
          onLeave={() => setLining(null)}
        />
      ) : null}
    </View>
  );
}
