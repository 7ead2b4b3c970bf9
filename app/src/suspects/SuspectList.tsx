import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { Button } from '../ui/Button';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';
import { NeedleRows } from './NeedleRows';
import type { SuspectShown, Told } from './suspecting';

/** A chance of a hundred: never quite none, never quite all. */
export const ofHundred = (chance: number): string =>
  String(Math.min(99, Math.max(1, Math.round(100 * chance))));

interface SuspectListProps {
  told: Told;
  before: ReadonlyMap<string, number>;
  /** Says that it is this one; null for whoever may not write. */
  onName: ((suspect: SuspectShown) => void) | null;
  /** Shows where it sits. */
  onShow: ((suspect: SuspectShown) => void) | null;
  /** Starts a job for it; null for whoever may not write, and where there is nothing real to mend. */
  onJob?: ((suspect: SuspectShown) => void) | null;
  chosen: string | null;
  onChoose: (id: string | null) => void;
}

/** Ranked causes, each with what speaks for it and against it. */
export function SuspectList({
  told,
  before,
  onName,
  onShow,
  onJob = null,
  chosen,
  onChoose,
}: SuspectListProps) {
  const palette = usePalette();
  const { suspects, sound, reader, unlisted, two } = told;
  const first = suspects[0]?.chance ?? 0;
  const [all, setAll] = useState(false);
  // Where nothing stands out, hardly likely ones are no list to go by.
  const spoken = suspects.filter(
    ({ chance }, n) => all || chance >= SPOKEN || (n === 0 && sound < first),
  );
  const unsaid = suspects.length - spoken.length;
  const isSoundFirst = sound >= first;
  const rest = [
    isSoundFirst ? null : `nothing wrong ${ofHundred(sound)}`,
    reader >= LEAST ? `a dial or reading ${ofHundred(reader)}` : null,
    `something else ${ofHundred(unlisted)}`,
    two.chance >= LEAST ? `two at once ${ofHundred(two.chance)}` : null,
  ].filter(Boolean);
  return (
    <View>
      <View role="list" aria-label="Suspects">
        {isSoundFirst ? (
          <View role="listitem">
            <Rule />
            <View style={{ paddingVertical: space.near, gap: space.hair }}>
              <View style={{ flexDirection: 'row', alignItems: 'baseline', gap: space.step }}>
                <Txt as="bodyBold" style={{ flex: 1 }}>
                  Nothing wrong
                </Txt>
                <Txt as="numberLarge">{ofHundred(sound)}</Txt>
              </View>
              <View style={{ height: 6, backgroundColor: palette.rule }}>
                <View
                  style={{ height: 6, width: `${100 * sound}%`, backgroundColor: palette.pass }}
                />
              </View>
              <Txt as="small">+ sound rigs like this one read so</Txt>
            </View>
          </View>
        ) : null}
        {spoken.map((suspect) => {
          const [first] = suspect.faults;
          return (
            <SuspectRow
              key={first!.id}
              suspect={suspect}
              was={before.get(first!.id) ?? null}
              isOpen={chosen === first!.id}
              onToggle={() => onChoose(chosen === first!.id ? null : first!.id)}
              onName={onName}
              onShow={onShow}
              onJob={onJob}
            />
          );
        })}
      </View>
      <Rule />
      <Txt as="small" tone="quiet" style={{ paddingVertical: space.near }}>
        {rest.join(' · ')}
      </Txt>
      {unsaid > 0 ? (
        <Button
          title={unsaid === 1 ? '1 more, hardly likely' : `${unsaid} more, hardly likely`}
          manner="quiet"
          onPress={() => setAll(true)}
          style={{ alignSelf: 'flex-start' }}
        />
      ) : null}
      {two.chance >= TWO_NAMED && two.titles.length === 2 ? (
        <Txt as="small">{`If two at once: ${two.titles.join('; and ')}.`}</Txt>
      ) : null}
    </View>
  );
}

/** Suspects under this are folded away. */
const SPOKEN = 0.05;
/** What is not spoken of, and from where on the two are named. */
const LEAST = 0.005;
const TWO_NAMED = 0.1;
/** A chance that moved by less has not moved. */
const MOVED = 0.015;

interface SuspectRowProps {
  suspect: SuspectShown;
  was: number | null;
  isOpen: boolean;
  onToggle: () => void;
  onName: SuspectListProps['onName'];
  onShow: SuspectListProps['onShow'];
  onJob: ((suspect: SuspectShown) => void) | null;
}

function SuspectRow({ suspect, was, isOpen, onToggle, onName, onShow, onJob }: SuspectRowProps) {
  const palette = usePalette();
  const { faults, chance, howBad, why, notYet } = suspect;
  const [first] = faults;
  const titles = faults.map(({ part, title }) => `${sentence(part)}: ${title}`);
  const moved = was !== null && Math.abs(was - chance) >= MOVED ? `was ${ofHundred(was)}` : null;
  const [hovered, setHovered] = useState(false);
  return (
    <View role="listitem">
      <Rule />
      <Pressable
        role="button"
        aria-expanded={isOpen}
        aria-label={`${titles.join(', or ')}: ${ofHundred(chance)} in 100${moved ? `, ${moved}` : ''}`}
        onPress={onToggle}
        onHoverIn={() => setHovered(true)}
        onHoverOut={() => setHovered(false)}
        style={{ paddingVertical: space.near, gap: space.hair, opacity: hovered ? 0.85 : 1 }}
      >
        <View style={{ flexDirection: 'row', alignItems: 'baseline', gap: space.step }}>
          <View style={{ flex: 1 }}>
            {titles.map((title, n) => (
              <Txt key={title} as={n === 0 ? 'bodyBold' : 'body'}>
                {n === 0 ? title : `or ${title.charAt(0).toLowerCase()}${title.slice(1)}`}
              </Txt>
            ))}
          </View>
          {moved ? (
            <Txt as="small" tone="quiet">
              {moved}
            </Txt>
          ) : null}
          <Txt as="numberLarge">{ofHundred(chance)}</Txt>
        </View>
        <View style={{ height: 6, backgroundColor: palette.rule }}>
          <View
            style={{
              height: 6,
              width: `${Math.max(1, 100 * chance)}%`,
              backgroundColor: palette.accent,
            }}
          />
        </View>
      </Pressable>
      <View style={{ gap: 2, paddingBottom: space.near }}>
        {faults.length > 1 ? (
          <Txt as="small">Nothing but opening them tells these apart.</Txt>
        ) : null}
        {why.pros.slice(0, isOpen ? undefined : 1).map((text) => (
          <Txt key={text} as="small">{`+ ${text}`}</Txt>
        ))}
        {why.cons.slice(0, isOpen ? undefined : 1).map((text) => (
          <Txt key={text} as="small" tone="quiet">{`− ${text}`}</Txt>
        ))}
        {notYet && (isOpen || why.cons.length === 0) ? (
          <Txt as="small" tone="quiet">{`− not done yet: ${lower(notYet)}`}</Txt>
        ) : null}
        {isOpen ? (
          <View style={{ gap: space.step, paddingTop: space.near }}>
            <Txt as="small">{`How bad, if it is this: ${howBad}.`}</Txt>
            {why.needles.length > 0 ? <NeedleRows needles={why.needles} /> : null}
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near }}>
              {onShow ? (
                <Button
                  title="Where it sits"
                  label={`Where it sits: ${first!.part}`}
                  onPress={() => onShow(suspect)}
                />
              ) : null}
              {onJob ? (
                <Button
                  title="Start a job"
                  label={`Start a job for ${titles[0]}`}
                  onPress={() => onJob(suspect)}
                />
              ) : null}
              {onName ? (
                <Button
                  title="I know it is this"
                  label={`I know it is this: ${titles[0]}`}
                  onPress={() => onName(suspect)}
                />
              ) : null}
            </View>
          </View>
        ) : null}
      </View>
    </View>
  );
}

const sentence = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);
const lower = (words: string) => words.charAt(0).toLowerCase() + words.slice(1);
