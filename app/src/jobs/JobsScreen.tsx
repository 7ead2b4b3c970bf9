import type { JobRow } from '@keen-bleed/contract';
import { stations } from '@keen-bleed/core';
import { router } from 'expo-router';
import { useMemo, useState } from 'react';
import { View, type ViewStyle } from 'react-native';
import { useMe } from '../account/session';
import { useUnits } from '../data/useRecords';
import { sayAgo, sayDay } from '../data/when';
import { Rail, StationHeads } from '../job/Rail';
import { space } from '../theme/space';
import { useWide } from '../theme/useWide';
import { Button } from '../ui/Button';
import { LinkOut } from '../ui/LinkOut';
import { LinkTo } from '../ui/LinkTo';
import { Notice } from '../ui/Notice';
import { OutboxSign } from '../ui/OutboxSign';
import { Pick } from '../ui/Pick';
import { Rule } from '../ui/Rule';
import { Screen } from '../ui/Screen';
import { Segments } from '../ui/Segments';
import { Txt } from '../ui/Txt';
import { useBoxSize } from '../ui/useBoxSize';
import { Waiting } from '../ui/Waiting';
import { NewJobSheet } from './NewJobSheet';
import { RailSlider } from './RailSlider';
import { useBoard } from './useBoard';

const DAY_MS = 86_400_000;
const EVERY_UNIT = 'Every unit';
const EVERYBODY = 'Everybody';
type Age = 'all' | 'week' | 'month';
/** Jobs shown at once; more are asked for. */
const AT_ONCE = 60;

const count = (number: number, one: string, many: string): string => {
  const words = ['none', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'];
  return `${words[number] ?? number} ${number === 1 ? one : many}`;
};

/** Every job of the shop on its rail; what holds a vehicle first, ruled heavily. */
export function JobsScreen() {
  const me = useMe();
  const wide = useWide();
  const { rows, error, again } = useBoard();
  const units = useUnits();
  const [nowMs] = useState(() => Date.now());
  const [unit, setUnit] = useState(EVERY_UNIT);
  const [owner, setOwner] = useState(EVERYBODY);
  const [age, setAge] = useState<Age>('all');
  const [most, setMost] = useState(AT_ONCE);
  const [adding, setAdding] = useState(false);
  const open = useMemo(() => (rows ?? []).filter(({ closedAtMs }) => closedAtMs === null), [rows]);
  const ended = useMemo(() => (rows ?? []).filter(({ closedAtMs }) => closedAtMs !== null), [rows]);
  const titles = [EVERY_UNIT, ...new Set(open.map(({ title }) => title))];
  const owners = [EVERYBODY, ...new Set(open.flatMap(({ owner: name }) => name ?? []))];
  const listed = useMemo(
    () =>
      open.filter(
        (row) =>
          (unit === EVERY_UNIT || row.title === unit) &&
          (owner === EVERYBODY || row.owner === owner) &&
          (age === 'all' || nowMs - row.openedMs >= (age === 'week' ? 7 : 30) * DAY_MS),
      ),
    [age, nowMs, open, owner, unit],
  );
  const holding = open.filter(({ holds }) => holds.length > 0).length;
  const temporary = open.reduce((sum, { measures }) => sum + measures.length, 0);
  const sentence = [
    count(open.length, 'open', 'open'),
    count(holding, 'holds a vehicle', 'hold a vehicle'),
    ...(temporary > 0
      ? [count(temporary, 'temporary measure not undone', 'temporary measures not undone')]
      : []),
  ].join(', ');
  return (
    <Screen
      title="Jobs"
      aside={wide ? undefined : <OutboxSign />}
      lead={rows ? `${sentence.charAt(0).toUpperCase()}${sentence.slice(1)}` : undefined}
    >
      {error && !rows ? (
        <Notice
          manner="trouble"
          title="The jobs cannot be shown"
          text={error.message}
          action={{ title: 'Try again', onPress: again }}
        />
      ) : null}
      {!rows && !error ? <Waiting rows={6} /> : null}
      {open.length > 1 ? (
        <View
          style={{
            flexDirection: 'row',
            flexWrap: 'wrap',
            alignItems: 'flex-end',
            gap: space.step,
            marginTop: space.near,
          }}
        >
          <View style={{ flexDirection: 'row', minWidth: 170, flex: wide ? 0 : 1 }}>
            <Pick label="Unit" options={titles} value={unit} onChange={setUnit} />
          </View>
          <View style={{ flexDirection: 'row', minWidth: 150, flex: wide ? 0 : 1 }}>
            <Pick label="Whose" options={owners} value={owner} onChange={setOwner} />
          </View>
          <View style={{ flexGrow: 1, maxWidth: 420 }}>
            <Segments
              label="How old"
              options={[
                { value: 'all', title: 'any age' },
                { value: 'week', title: 'over a week' },
                { value: 'month', title: 'over a month' },
              ]}
              value={age}
              onChange={setAge}
            />
          </View>
        </View>
      ) : null}
      {rows && open.length === 0 ? (
        <Notice
          title="No job is open"
          text="A job begins at an open failure, at a suspect, at something seen in a visit, or here."
        />
      ) : null}
      <Board rows={listed.slice(0, most)} nowMs={nowMs} />
      {listed.length > most ? (
        <Button
          title={`${listed.length - most} more`}
          manner="quiet"
          onPress={() => setMost(most + AT_ONCE)}
          style={{ alignSelf: 'flex-start' }}
        />
      ) : null}
      {rows ? <LookUps rows={open} /> : null}
      <View
        style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.step, marginTop: space.gap }}
      >
        {me.role !== 'viewer' ? (
          <Button title="New job" size="glove" onPress={() => setAdding(true)} />
        ) : null}
        <LinkOut title="Parts list as CSV" href="/api/v1/jobs/parts.csv" />
        <LinkTo to="/lessons">
          <Txt as="bodyBold" tone="accent">
            What repairs teach
          </Txt>
        </LinkTo>
      </View>
      <Ended rows={ended} />
      {adding ? (
        <NewJobSheet
          units={(units.data ?? []).filter(({ retiredAtMs }) => retiredAtMs === null)}
          onLeave={() => setAdding(false)}
        />
      ) : null}
    </Screen>
  );
}

/** Widths of a wide board, px: what the job is about, and its age; the rail takes what is left. */
const ABOUT = 320;
const AGE = 90;

function Board({ rows, nowMs }: { rows: readonly JobRow[]; nowMs: number }) {
  const wide = useWide();
  const [box, onBox] = useBoxSize();
  const rail = Math.max(0, wide ? box.width - ABOUT - AGE - 2 * space.gap : box.width);
  return (
    <View onLayout={onBox} style={{ marginTop: space.step }}>
      {wide && rows.length > 0 && rail > 0 ? (
        <View style={{ flexDirection: 'row', gap: space.gap }}>
          <View style={{ width: ABOUT }} />
          <StationHeads width={rail} />
        </View>
      ) : null}
      <View role="list" aria-label="Open jobs">
        {box.width > 0
          ? rows.map((row) => <BoardRow key={row.id} row={row} rail={rail} nowMs={nowMs} />)
          : null}
      </View>
      {rows.length > 0 ? <Rule heavy={(rows.at(-1)?.holds.length ?? 0) > 0} /> : null}
    </View>
  );
}

function BoardRow({ row, rail, nowMs }: { row: JobRow; rail: number; nowMs: number }) {
  const wide = useWide();
  const { id, title, line, holds, station, owner, wantedBy, asked, openedMs } = row;
  const isHeld = holds.length > 0;
  const tone = station === 'release' ? 'passed' : isHeld ? 'holds' : 'open';
  const days = sayAgo(openedMs, nowMs);
  const quiet = [
    owner,
    wantedBy ? `wanted by ${sayDay(Date.parse(`${wantedBy}T12:00:00`))}` : null,
    asked ? 'release asked for' : null,
  ].filter(Boolean);
  const about = (
    <View style={{ gap: 2, flexShrink: 1 }}>
      <View style={{ flexDirection: 'row', alignItems: 'baseline', gap: space.step }}>
        <Txt as="heading" heading={2} style={{ flexShrink: 1 }}>
          {title}
        </Txt>
        {wide ? null : (
          <Txt as="small" tone="quiet" style={{ marginLeft: 'auto' }}>
            {days}
          </Txt>
        )}
      </View>
      <Txt>{line}</Txt>
      {isHeld ? <Txt as="smallBold">{holdLine(holds)}</Txt> : null}
      {quiet.length > 0 ? (
        <Txt as="small" tone="quiet">
          {quiet.join(' · ')}
        </Txt>
      ) : null}
    </View>
  );
  return (
    <View role="listitem" style={ROW}>
      <Rule heavy={isHeld} />
      {wide ? (
        <View
          style={{
            flexDirection: 'row',
            alignItems: 'center',
            gap: space.gap,
            paddingVertical: space.near,
          }}
        >
          <LinkTo to={`/job/${id}`} style={{ width: ABOUT }}>
            {about}
          </LinkTo>
          <RailSlider
            station={station}
            tone={tone}
            width={rail}
            label={`${title}: ${line}`}
            onMove={(to) => router.push(`/job/${id}?to=${to}`)}
          />
          <Txt as="small" tone="quiet" style={{ width: AGE, textAlign: 'right' }}>
            {days}
          </Txt>
        </View>
      ) : (
        <LinkTo to={`/job/${id}`} style={{ paddingVertical: space.near, gap: space.hair }}>
          {about}
          <View role="img" aria-label={`At ${station}, ${stations.indexOf(station) + 1} of 6`}>
            <Rail station={station} tone={tone} width={rail} />
          </View>
        </LinkTo>
      )}
    </View>
  );
}

/** A row out of sight is neither laid out nor painted: a long board stays as quick as a short one. */
const ROW = { contentVisibility: 'auto', containIntrinsicSize: 'auto 110px' } as ViewStyle;

/** Why it holds, short: the first reason, and how many more. */
const holdLine = (holds: readonly string[]): string =>
  holds.length > 1 ? `${holds[0] ?? ''}, and ${holds.length - 1} more` : (holds[0] ?? '');

/** What nobody knows yet of parts that are wanted: to be read off, or asked for. */
function LookUps({ rows }: { rows: readonly JobRow[] }) {
  const wanted = rows.flatMap(({ id, title, part, wants }) => {
    const unknown = wants.filter(({ value }) => value === null).map((want) => want.title);
    return part && unknown.length > 0 ? [{ id, title, part: part.title, unknown }] : [];
  });
  if (wanted.length === 0) return null;
  return (
    <View style={{ marginTop: space.gap }}>
      <Txt as="heading" heading={2}>
        To be looked up
      </Txt>
      <View role="list" aria-label="To be looked up">
        {wanted.map(({ id, title, part, unknown }) => (
          <View key={id} role="listitem">
            <Rule />
            <LinkTo to={`/job/${id}`} style={{ paddingVertical: space.near }}>
              <Txt as="bodyBold">{`${part}, ${title}`}</Txt>
              <Txt as="small" tone="quiet">
                {`Not known yet: ${unknown.join(', ').toLowerCase()}`}
              </Txt>
            </LinkTo>
          </View>
        ))}
        <Rule />
      </View>
    </View>
  );
}

function Ended({ rows }: { rows: readonly JobRow[] }) {
  const [all, setAll] = useState(false);
  if (rows.length === 0) return null;
  const shown = rows.slice(0, all ? undefined : 4);
  return (
    <View style={{ marginTop: space.wide }}>
      <Txt as="heading" heading={2}>
        Ended
      </Txt>
      <View role="list" aria-label="Ended jobs">
        {shown.map(({ id, title, line, closedAtMs }) => (
          <View key={id} role="listitem">
            <Rule />
            <LinkTo to={`/job/${id}`} style={{ paddingVertical: space.near }}>
              <Txt as="bodyBold">{title}</Txt>
              <Txt as="small" tone="quiet">
                {`${line} · ${sayDay(closedAtMs ?? 0)}`}
              </Txt>
            </LinkTo>
          </View>
        ))}
        <Rule />
      </View>
      {rows.length > shown.length ? (
        <Button
          title={`${rows.length - shown.length} more`}
          manner="quiet"
          onPress={() => setAll(true)}
          style={{ alignSelf: 'flex-start' }}
        />
      ) : null}
    </View>
  );
}
