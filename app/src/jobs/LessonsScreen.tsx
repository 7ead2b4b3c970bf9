import { sayReading } from '@keen-bleed/core';
import type { ReactNode } from 'react';
import { View } from 'react-native';
import { useLessons } from '../data/useRecords';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { useWide } from '../theme/useWide';
import { LinkOut } from '../ui/LinkOut';
import { LinkTo } from '../ui/LinkTo';
import { Notice } from '../ui/Notice';
import { Rule } from '../ui/Rule';
import { Screen } from '../ui/Screen';
import { Txt } from '../ui/Txt';
import { Waiting } from '../ui/Waiting';

/** Days from so many hours on. */
const IN_DAYS = 48;

const sayHours = (hours: number): string =>
  hours >= IN_DAYS ? `${Math.round(hours / 24)} days` : `${Math.round(hours)} hours`;

/** What the shop's repairs teach: of vehicles and parts, never of people. */
export function LessonsScreen() {
  const wide = useWide();
  const { unit: sayIn } = usePrefs();
  const { data, error, mutate } = useLessons();
  if (!data) {
    return (
      <Screen title="What repairs teach">
        {error ? (
          <Notice
            manner="trouble"
            title="This cannot be shown"
            text={error.message}
            action={{ title: 'Try again', onPress: () => void mutate() }}
          />
        ) : (
          <Waiting rows={5} />
        )}
      </Screen>
    );
  }
  const { released, meanHours, suspects, parts, repeats, readings } = data;
  const needless = parts.reduce((sum, each) => sum + each.needless, 0);
  return (
    <Screen
      title="What repairs teach"
      lead="Counts of vehicles and parts. Suspects begin with what was at fault here before."
    >
      {released === 0 ? (
        <Notice
          title="No vehicle was released by a job yet"
          text="With the first release, what was fitted and what the retest read stand here."
        />
      ) : (
        <>
          <View
            style={{
              flexDirection: 'row',
              flexWrap: 'wrap',
              gap: space.wide,
              marginTop: space.gap,
            }}
          >
            <Number value={String(released)} title={released === 1 ? 'release' : 'releases'} />
            <Number
              value={meanHours === null ? 'none' : sayHours(meanHours)}
              title="from found to released, on average"
            />
            <Number
              value={suspects.asked === 0 ? 'none' : `${suspects.right} of ${suspects.asked}`}
              title="times the first suspect was the part"
            />
            <Number
              value={String(needless)}
              title={needless === 1 ? 'part changed needlessly' : 'parts changed needlessly'}
            />
          </View>
          <View
            style={{
              flexDirection: wide ? 'row' : 'column',
              gap: space.wide,
              marginTop: space.wide,
            }}
          >
            <List title="Parts worked on" of={parts.map(({ title }) => title)}>
              {(at) => {
                const part = parts[at]!;
                const times = part.worked === 1 ? 'once' : `${part.worked} times`;
                if (part.needless === 0) return times;
                return part.needless === part.worked
                  ? `${times}, needlessly`
                  : `${times}, ${part.needless} of them needlessly`;
              }}
            </List>
            <List
              title="The same part again within half a year"
              of={repeats.map(({ unit, part }) => `${part}, ${unit}`)}
              to={repeats.map(({ unitId }) => `/unit/${unitId}`)}
            >
              {(at) => `${repeats[at]!.times} times, the last after ${repeats[at]!.days} days`}
            </List>
          </View>
          <View style={{ marginTop: space.wide }}>
            <List title="What retests read" of={readings.map(({ title }) => title)}>
              {(at) => {
                const { before, after, expected, unit, count } = readings[at]!;
                const say = (value: number) => sayReading(value, unit, sayIn);
                return [
                  before === null || after === null ? null : `${say(before)} → ${say(after)}`,
                  before === null && after !== null ? say(after) : null,
                  expected === null ? null : `${say(expected)} expected`,
                  count === 1 ? 'once' : `${count} times`,
                ]
                  .filter(Boolean)
                  .join(', ');
              }}
            </List>
          </View>
        </>
      )}
      <View style={{ flexDirection: 'row', gap: space.step, marginTop: space.gap }}>
        <LinkOut title="Export as CSV" href="/api/v1/lessons.csv" />
        <LinkTo to="/jobs">
          <Txt as="bodyBold" tone="accent">
            To the jobs
          </Txt>
        </LinkTo>
      </View>
    </Screen>
  );
}

function Number({ value, title }: { value: string; title: string }) {
  return (
    <View style={{ maxWidth: 200 }}>
      <Txt as="numberLarge">{value}</Txt>
      <Txt as="small" tone="quiet">
        {title}
      </Txt>
    </View>
  );
}

interface ListProps {
  title: string;
  of: readonly string[];
  to?: readonly string[];
  children: (at: number) => ReactNode;
}

function List({ title, of, to, children }: ListProps) {
  if (of.length === 0) return null;
  return (
    <View style={{ flex: 1 }}>
      <Txt as="heading" heading={2}>
        {title}
      </Txt>
      <View role="list" aria-label={title}>
        {of.map((each, at) => (
          <View key={each} role="listitem">
            <Rule />
            <View style={{ paddingVertical: space.near, gap: 2 }}>
              {to?.[at] ? (
                <LinkTo to={to[at]}>
                  <Txt as="bodyBold">{each}</Txt>
                </LinkTo>
              ) : (
                <Txt as="bodyBold">{each}</Txt>
              )}
              <Txt as="small" tone="quiet">
                {children(at)}
              </Txt>
            </View>
          </View>
        ))}
        <Rule />
      </View>
    </View>
  );
}
