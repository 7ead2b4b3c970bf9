import type { JobFact, PartData, Repair, Unit } from '@keen-bleed/contract';
import { chamberTypes } from '@keen-bleed/contract/forms';
import {
  fromPsi,
  knownOf,
  mismatches,
  partById,
  partTitle,
  readable,
  rounded,
  sayPartNumber,
  toPsi,
  wantsOf,
  variantsOf,
  type NewFact,
  type Variant,
  type Want,
} from '@keen-bleed/core';
import { useState } from 'react';
import { View } from 'react-native';
import { PhotoPicker } from '../photos/PhotoPicker';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Notice } from '../ui/Notice';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';
import { RepairChoice } from './RepairChoice';
import { WorkCautions } from './WorkCautions';

interface MendSheetProps {
  unit: Unit;
  partId: string;
  /** What is decided: which part it will be, or what was fitted. */
  does: 'choose' | 'fit';
  begins: { repair: Repair | null; offered: PartData };
  /** A lead may have fitted what does not match. */
  mayOverride: boolean;
  onDone: (fact: NewFact<JobFact>, photos: readonly Blob[]) => void;
  onLeave: () => void;
}

type Texts = Partial<Record<keyof PartData, string>>;
const PRESSURE = new Set<keyof PartData>(['setPsi']);
const NUMBERS = new Set<keyof PartData>(['setPsi', 'lengthMm']);

/** What a replacement must match, what is offered for it, and, once it is done, how it sits. */
export function MendSheet({
  unit,
  partId,
  does,
  begins,
  mayOverride,
  onDone,
  onLeave,
}: MendSheetProps) {
  const { unit: sayIn } = usePrefs();
  const wants = wantsOf(unit, partId);
  const part = partById(unit, partId);
  const variants = part ? variantsOf(part) : [];
  const [repair, setRepair] = useState<Repair | null>(begins.repair);
  const [texts, setTexts] = useState<Texts>(() => textsOf(begins.offered, sayIn));
  const [adapter, setAdapter] = useState('');
  const [orientation, setOrientation] = useState('');
  const [note, setNote] = useState('');
  const [override, setOverride] = useState('');
  const [photos, setPhotos] = useState<readonly Blob[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  const isNew = repair === 'replaced';
  const read = dataOf(texts, wants, sayIn);
  const good = 'data' in read ? read.data : {};
  const made = readable(adapter).trim();
  const against = isNew
    ? mismatches(unit, partId, good, { adapter: made === '' ? undefined : made, sayIn })
    : [];
  const at = { unitId: unit.id, partId };
  const words = (text: string, most: number) => readable(text).trim().slice(0, most);
  const said = <K extends string>(key: K, text: string, most: number) =>
    words(text, most) === '' ? {} : ({ [key]: words(text, most) } as Record<K, string>);

  const done = () => {
    if (repair === null) return setProblem('Say how it is mended.');
    if ('problem' in read && isNew) return setProblem(read.problem);
    if (against.length > 0 && words(override, 300) === '')
      return setProblem(
        mayOverride
          ? 'It does not match: offer another, or write why it is fitted all the same.'
          : 'It does not match: offer another, or ask a lead.',
      );
    const reason = against.length > 0 ? said('override', override, 300) : {};
    if (does === 'choose') {
      onDone(
        {
          kind: 'chosen',
          at,
          repair,
          ...(isNew && Object.keys(good).length > 0 ? { offered: good } : {}),
          ...said('adapter', adapter, 200),
          ...reason,
        },
        [],
      );
      return;
    }
    onDone(
      {
        kind: 'fitted',
        at,
        repair,
        was: knownOf(unit, partId),
        now: isNew ? good : knownOf(unit, partId),
        ...said('orientation', orientation, 120),
        ...said('note', note, 300),
        ...said('adapter', adapter, 200),
        ...reason,
      },
      photos,
    );
  };
  const refuse = () => {
    onDone(
      { kind: 'refused', at, offered: good, problems: against.map((each) => each.slice(0, 200)) },
      [],
    );
  };
  const title = partTitle(unit, partId) ?? partId;

  return (
    <Sheet
      title={does === 'choose' ? `${title}: which part` : `${title}: done`}
      at="foot"
      onLeave={onLeave}
    >
      <WorkCautions unit={unit} partId={partId} repair={repair} />
      <RepairChoice
        label={does === 'choose' ? 'It will be' : 'It was'}
        value={repair}
        onChange={setRepair}
      />
      {isNew ? (
        <View style={{ gap: space.step }}>
          {wants.map((want) => (
            <WantField
              key={want.field}
              want={want}
              variants={variants}
              text={texts[want.field] ?? ''}
              onChange={(text) => setTexts({ ...texts, [want.field]: text })}
            />
          ))}
          {wants.some(({ field }) => field === 'thread') ? (
            <Field label="Adapter or equivalent, if any" value={adapter} onChange={setAdapter} />
          ) : null}
        </View>
      ) : null}
      {against.map((text) => (
        <Notice key={text} manner="trouble" title="It does not match" text={text} />
      ))}
      {against.length > 0 && mayOverride ? (
        <Field
          label="Why it is fitted all the same"
          value={override}
          onChange={setOverride}
          lines={2}
        />
      ) : null}
      {does === 'fit' ? (
        <>
          <Field
            label="How it sits"
            hint="ports, arrow, which way up"
            value={orientation}
            onChange={setOrientation}
          />
          <Field label="Note" value={note} onChange={setNote} />
          <PhotoPicker photos={photos} onChange={setPhotos} />
        </>
      ) : null}
      {problem ? (
        <Txt as="small" tone="fail" live="polite">
          {problem}
        </Txt>
      ) : null}
      {against.length > 0 ? (
        <Button title="Refuse it, and keep that" size="glove" onPress={refuse} />
      ) : null}
      <View style={{ flexDirection: 'row', gap: space.step }}>
        <Button title="Back" size="glove" style={{ flex: 1 }} onPress={onLeave} />
        <Button title="Keep" manner="main" size="glove" style={{ flex: 1 }} onPress={done} />
      </View>
    </Sheet>
  );
}

interface WantFieldProps {
  want: Want;
  variants: readonly Variant[];
  text: string;
  onChange: (text: string) => void;
}

/** One thing that has to match: what is wanted stands beside what is offered. */
function WantField({ want, variants, text, onChange }: WantFieldProps) {
  const { unit: sayIn } = usePrefs();
  const { field, title, value, tolerance } = want;
  const wanted =
    value === null
      ? 'not known yet'
      : typeof value === 'number'
        ? `wanted ${sayPartNumber(field, value, sayIn)}${tolerance === null ? '' : ` ± ${sayPartNumber(field, tolerance, sayIn)}`}`
        : `wanted ${value}`;
  if (field === 'stroke') {
    return (
      <Choice
        label={`${title} (${wanted})`}
        options={[
          { value: 'standard', title: 'standard' },
          { value: 'long', title: 'long' },
        ]}
        value={text}
        onChange={onChange}
      />
    );
  }
  const listed =
    field === 'variant'
      ? variants.map(({ id, title: name }) => ({ value: id, title: name }))
      : field === 'chamberType'
        ? chamberTypes.map((type) => ({ value: type, title: type }))
        : [];
  if (listed.length > 0) {
    return (
      <Choice label={`${title} (${wanted})`} options={listed} value={text} onChange={onChange} />
    );
  }
  return (
    <Field
      label={title}
      hint={NUMBERS.has(field) ? `${PRESSURE.has(field) ? sayIn : 'mm'}, ${wanted}` : wanted}
      value={text}
      onChange={onChange}
      numeric={NUMBERS.has(field)}
    />
  );
}

function textsOf(data: PartData, sayIn: 'psi' | 'kPa' | 'bar'): Texts {
  return Object.fromEntries(
    Object.entries(data).map(([field, value]) => [
      field,
      typeof value === 'number'
        ? field === 'setPsi'
          ? rounded(fromPsi(value, sayIn), 2)
          : String(value)
        : value,
    ]),
  );
}

/** What was written of an offered part, or what is wrong with it. */
function dataOf(
  texts: Texts,
  wants: readonly Want[],
  sayIn: 'psi' | 'kPa' | 'bar',
): { data: PartData } | { problem: string } {
  const data: Record<string, string | number> = {};
  for (const { field, title } of wants) {
    const text = readable(texts[field] ?? '').trim();
    if (text === '') continue;
    if (!NUMBERS.has(field)) {
      data[field] = text.slice(0, 40);
      continue;
    }
    const given = Number(text.replace(',', '.'));
    const value = field === 'setPsi' ? toPsi(given, sayIn) : given;
    const most = field === 'setPsi' ? 200 : 20_000;
    const least = field === 'setPsi' ? 0 : 10;
    if (!Number.isFinite(value) || value < least || value > most)
      return {
        problem: `${title}: give a number from ${field === 'setPsi' ? rounded(fromPsi(least, sayIn), 0) : least} to ${field === 'setPsi' ? rounded(fromPsi(most, sayIn), 0) : most}.`,
      };
    data[field] = value;
  }
  return { data: data };
}
