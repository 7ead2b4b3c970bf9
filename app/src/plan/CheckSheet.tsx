import type { Unit } from '@keen-bleed/contract';
import { fromPsi, pressuresIn, rounded, toPsi } from '@keen-bleed/core';
import type { Check, CheckAnswer } from '@keen-bleed/core/checks';
import { useState } from 'react';
import { View } from 'react-native';
import { CurvePad } from '../curve/CurvePad';
import { PhotoPicker } from '../photos/PhotoPicker';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Caution } from '../ui/Caution';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { LinkTo } from '../ui/LinkTo';
import { LongChoice } from '../ui/LongChoice';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';

/** No gauge of a brake reads more, psi; no time or stroke is longer, s or mm. */
const MOST_PSI = 300;
const MOST_OTHER = 2_000;
/** More answers than these are found by a word. */
const MOST_IN_SIGHT = 9;

interface CheckSheetProps {
  check: Check;
  /** The unit it is done at: what is known of its valve, and what was read there before. */
  unit: Unit | undefined;
  onDone: (answer: CheckAnswer, note: string | null, photos: readonly Blob[]) => void;
  onLeave: () => void;
}

/** How a check is done, with what caution, and the answer as its shape asks for it. Nothing is chosen beforehand. */
export function CheckSheet({ check, unit: at, onDone, onLeave }: CheckSheetProps) {
  const { unit } = usePrefs();
  const { answer: shape } = check;
  const [choice, setChoice] = useState<string | null>(null);
  const [value, setValue] = useState('');
  const [note, setNote] = useState('');
  const [photos, setPhotos] = useState<readonly Blob[]>([]);
  const [problem, setProblem] = useState<string>();
  const [curve, setCurve] = useState<CheckAnswer | string | null>(null);
  const inPressure = shape.kind === 'number' && (shape.unit === 'psi' || shape.unit === 'psi/min');
  const read = (text: string): number | null => {
    const number = Number(text.trim().replace(',', '.'));
    if (text.trim() === '' || !Number.isFinite(number) || number < 0) return null;
    return inPressure ? toPsi(number, unit) : number;
  };
  const done = () => {
    const answer = answerOf();
    if (typeof answer === 'string') return setProblem(answer);
    onDone(answer, note.trim() === '' ? null : note.trim().slice(0, 200), photos);
  };
  const answerOf = (): CheckAnswer | string => {
    if (shape.kind === 'grade') {
      return choice === null ? 'Say what you found.' : { kind: 'grade', grade: choice };
    }
    if (shape.kind === 'choice') {
      return choice === null ? 'Say what you found.' : { kind: 'choice', choice };
    }
    if (shape.kind === 'number') {
      const number = read(value);
      const most = inPressure ? MOST_PSI : MOST_OTHER;
      return number === null || number > most
        ? `Give a number up to ${inPressure ? rounded(fromPsi(most, unit), 0) : most}, such as ${inPressure ? rounded(fromPsi(30, unit), 1) : '0.4'}.`
        : { kind: 'number', value: number };
    }
    return curve ?? 'Read at least one pressure at both gauges.';
  };
  const options =
    shape.kind === 'grade' ? shape.grades : shape.kind === 'choice' ? shape.choices : null;
  return (
    <Sheet title={pressuresIn(check.title, unit)} at="foot" onLeave={onLeave}>
      <View style={{ gap: space.near }}>
        <Txt as="smallBold">{check.state.title}</Txt>
        <Txt>{pressuresIn(check.how, unit)}</Txt>
        {check.cautions.length > 0 ? (
          <Caution lines={check.cautions.map((line) => pressuresIn(line, unit))} />
        ) : null}
        <Txt as="small" tone="quiet">
          {`A sound rig: ${pressuresIn(check.sound, unit)}${check.tools.length > 0 ? ` Needs: ${check.tools.join(', ')}.` : ''}`}
        </Txt>
      </View>
      {options && options.length > MOST_IN_SIGHT ? (
        <LongChoice
          label="What did you find?"
          hint="such as rear, tank, relay"
          options={options.map(({ id, title }) => ({ value: id, title }))}
          value={choice ?? ''}
          onChange={setChoice}
        />
      ) : options ? (
        <Choice
          label="What did you find?"
          options={options.map(({ id, title }) => ({ value: id, title }))}
          value={choice ?? ''}
          onChange={setChoice}
          size="glove"
        />
      ) : check.doing.does === 'compare' ? (
        <CurvePad check={check} at={at} onChange={setCurve} />
      ) : (
        <>
          {check.doing.does === 'time' ? (
            <View>
              <Txt as="small">No eye times half a second: give what a recorded line says.</Txt>
              {at ? (
                <LinkTo to={`/trace?for=${at.id}`}>
                  <Txt as="bodyBold" tone="accent">
                    From a logger’s file
                  </Txt>
                </LinkTo>
              ) : null}
            </View>
          ) : null}
          <Field
            label="What did you read?"
            hint={inPressure ? unit : shape.kind === 'number' ? shape.unit : ''}
            value={value}
            onChange={setValue}
            numeric={shape.kind === 'number'}
          />
        </>
      )}
      <Field label="Note" value={note} onChange={setNote} problem={problem} />
      <PhotoPicker photos={photos} onChange={setPhotos} />
      <View style={{ flexDirection: 'row', gap: space.step }}>
        <Button title="Back" size="glove" style={{ flex: 1 }} onPress={onLeave} />
        <Button title="Keep" manner="main" size="glove" style={{ flex: 1 }} onPress={done} />
      </View>
    </Sheet>
  );
}
