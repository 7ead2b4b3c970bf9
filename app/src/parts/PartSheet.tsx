import type { AdjusterKind, ChamberStroke, PartStanding } from '@keen-bleed/contract';
import {
  fromPsi,
  rounded,
  toPsi,
  variantsOf,
  type ListedPart,
  type PartPlace,
} from '@keen-bleed/core';
import { PhotoPicker } from '../photos/PhotoPicker';
import { useState } from 'react';
import { View } from 'react-native';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Sheet } from '../ui/Sheet';
import { standingWords } from './sayPart';

/** What is said of a part. */
export interface PartSaid {
  standing: PartStanding;
  number?: string;
  thread?: string;
  setPsi?: number;
  fittedOn?: string;
  note?: string;
  variant?: string;
  place?: PartPlace;
  stroke?: ChamberStroke;
  adjuster?: AdjusterKind;
  photos?: string[];
}

interface PartSheetProps {
  part: ListedPart;
  onDone: (said: PartSaid, photos: readonly Blob[]) => void;
  onLeave: () => void;
}

const STROKES: readonly { value: ChamberStroke; title: string }[] = [
  { value: 'standard', title: 'standard' },
  { value: 'long', title: 'long stroke' },
  { value: 'long-3', title: 'long stroke, 3 in rated' },
];
const ADJUSTERS: readonly { value: AdjusterKind; title: string }[] = [
  { value: 'automatic', title: 'automatic' },
  { value: 'manual', title: 'manual' },
];

/** Where a part sits across the frame, from the left. */
const SIDES = [
  { value: '-2', title: 'left' },
  { value: '-1', title: 'left rail' },
  { value: '0', title: 'middle' },
  { value: '1', title: 'right rail' },
  { value: '2', title: 'right' },
];

const isDay = (text: string) =>
  /^\d{4}-\d{2}-\d{2}$/.test(text) && !Number.isNaN(Date.parse(`${text}T00:00:00Z`));

/** Whether a part is there, and what a replacement would have to match. */
export function PartSheet({ part, onDone, onLeave }: PartSheetProps) {
  const { unit } = usePrefs();
  const { record } = part;
  const [standing, setStanding] = useState<PartStanding>(record?.standing ?? 'fitted');
  const [number, setNumber] = useState(record?.number ?? '');
  const [thread, setThread] = useState(record?.thread ?? '');
  const [setting, setSetting] = useState(
    record?.setPsi === undefined ? '' : rounded(fromPsi(record.setPsi, unit), 2),
  );
  const [fittedOn, setFittedOn] = useState(record?.fittedOn ?? '');
  const [note, setNote] = useState(record?.note ?? '');
  const [variant, setVariant] = useState(record?.variant ?? '');
  const [stroke, setStroke] = useState<ChamberStroke | ''>(record?.stroke ?? '');
  const [adjuster, setAdjuster] = useState<AdjusterKind | ''>(record?.adjuster ?? '');
  const isChamber = part.role === 'chamber' || part.role === 'chambers';
  const [row, setRow] = useState(record?.place ? String(record.place.row) : '');
  const [column, setColumn] = useState(record?.place ? String(record.place.column) : '');
  const [photos, setPhotos] = useState<readonly Blob[]>([]);
  const variants = variantsOf(part);
  const [problems, setProblems] = useState<{ setting?: string; fittedOn?: string; place?: string }>(
    {},
  );
  const done = () => {
    const psi = toPsi(Number(setting.trim().replace(',', '.')), unit);
    const wrong: { setting?: string; fittedOn?: string; place?: string } = {
      ...(setting.trim() !== '' && !(psi >= 0 && psi <= 200)
        ? { setting: `Give a pressure from 0 to ${rounded(fromPsi(200, unit), 0)} ${unit}.` }
        : {}),
      ...(fittedOn.trim() !== '' && !isDay(fittedOn.trim())
        ? { fittedOn: 'Give it as year-month-day, such as 2026-11-24.' }
        : {}),
    };
    const at = Number(row.trim());
    const isPlaced = row.trim() !== '' || column !== '';
    const misplaced =
      isPlaced &&
      !(Number.isInteger(at) && at >= 0 && at < 50 && row.trim() !== '' && column !== '');
    if (misplaced) wrong.place = 'Give both: a row from 0, at the front, to 49, and a side.';
    setProblems(wrong);
    if (Object.keys(wrong).length > 0) return;
    const text = (key: 'number' | 'thread' | 'fittedOn' | 'note', value: string) =>
      value.trim() === '' ? {} : { [key]: value.trim() };
    onDone(
      {
        standing,
        ...text('number', number.slice(0, 40)),
        ...text('thread', thread.slice(0, 40)),
        ...(setting.trim() === '' ? {} : { setPsi: psi }),
        ...text('fittedOn', fittedOn),
        ...text('note', note.slice(0, 200)),
        ...(variant === '' ? {} : { variant }),
        ...(stroke === '' ? {} : { stroke }),
        ...(adjuster === '' ? {} : { adjuster }),
        ...(isPlaced ? { place: { row: at, column: Number(column) } } : {}),
        ...(record?.photos ? { photos: record.photos } : {}),
      },
      photos,
    );
  };
  return (
    <Sheet title={part.title} at="foot" onLeave={onLeave}>
      <Choice
        label="Whether it is fitted"
        options={(['fitted', 'not-fitted', 'not-known'] as const).map((value) => ({
          value,
          title: standingWords[value],
        }))}
        value={standing}
        onChange={setStanding}
      />
      <View style={{ flexDirection: 'row', gap: space.step }}>
        <View style={{ flex: 1 }}>
          <Field label="Number on it" value={number} onChange={setNumber} />
        </View>
        <View style={{ flex: 1 }}>
          <Field label="Thread" value={thread} onChange={setThread} />
        </View>
      </View>
      <View style={{ flexDirection: 'row', alignItems: 'flex-end', gap: space.step }}>
        <View style={{ flex: 1 }}>
          <Field
            label="Crack or set pressure"
            hint={unit}
            value={setting}
            onChange={setSetting}
            problem={problems.setting}
            numeric
          />
        </View>
        <View style={{ flex: 1 }}>
          <Field
            label="Fitted on"
            value={fittedOn}
            onChange={setFittedOn}
            problem={problems.fittedOn}
          />
        </View>
      </View>
      {variants.length > 0 ? (
        <Choice
          label="What kind"
          options={variants.map(({ id, title }) => ({ value: id, title }))}
          value={variant}
          onChange={setVariant}
        />
      ) : null}
      {isChamber ? (
        <>
          <Choice
            label="Stroke mark"
            options={STROKES}
            value={stroke as ChamberStroke}
            onChange={setStroke}
          />
          <Choice
            label="Adjuster"
            options={ADJUSTERS}
            value={adjuster as AdjusterKind}
            onChange={setAdjuster}
          />
        </>
      ) : null}
      <View style={{ flexDirection: 'row', alignItems: 'flex-end', gap: space.step }}>
        <View style={{ width: 110 }}>
          <Field
            label="Row"
            hint="0 at the front"
            value={row}
            onChange={setRow}
            problem={problems.place}
            numeric
          />
        </View>
        <View style={{ flex: 1 }}>
          <Choice label="Side" options={SIDES} value={column} onChange={setColumn} />
        </View>
      </View>
      <Field label="Note" value={note} onChange={setNote} />
      <PhotoPicker photos={photos} onChange={setPhotos} />
      <View style={{ flexDirection: 'row', gap: space.step }}>
        <Button title="Back" size="glove" style={{ flex: 1 }} onPress={onLeave} />
        <Button title="Keep" manner="main" size="glove" style={{ flex: 1 }} onPress={done} />
      </View>
    </Sheet>
  );
}
