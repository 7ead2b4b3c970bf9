import { rounded } from '@keen-bleed/core';
import { useState } from 'react';
import { View } from 'react-native';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';
import type { Weather } from './useWater';
import { degreesOf, fromCelsius, numberIn, toCelsius } from './waterWords';

interface WeatherSheetProps {
  /** What it opens with: what was said last, or what is usual. */
  last: Weather | null;
  engineHours: number;
  onDone: (weather: Weather) => void;
  onLeave: () => void;
}

const COLDEST_C = -60;
const HOTTEST_C = 60;
const MOST_HOURS = 2_000;

/** The weather and the work: what the compressor breathed since the tanks were drained. */
export function WeatherSheet({ last, engineHours, onDone, onLeave }: WeatherSheetProps) {
  const { unit } = usePrefs();
  const shown = (celsius: number | undefined) =>
    celsius === undefined ? '' : rounded(fromCelsius(celsius, unit), 0);
  const [air, setAir] = useState(shown(last?.airC));
  const [humidity, setHumidity] = useState(last ? String(last.humidityPct) : '');
  const [low, setLow] = useState(shown(last?.lowC));
  const [hours, setHours] = useState(rounded(engineHours, 0));
  const [share, setShare] = useState(last?.loadedShare ? rounded(100 * last.loadedShare, 0) : '');
  const [problems, setProblems] = useState<Partial<Record<string, string>>>({});
  const done = () => {
    const wrong: Partial<Record<string, string>> = {};
    const degrees = (text: string, field: string, asked: boolean) => {
      const number = numberIn(text);
      if (number === null) {
        if (asked || text.trim() !== '')
          wrong[field] = `Give degrees, such as ${rounded(fromCelsius(18, unit), 0)}.`;
        return undefined;
      }
      const celsius = toCelsius(number, unit);
      if (celsius < COLDEST_C || celsius > HOTTEST_C)
        wrong[field] =
          `Between ${rounded(fromCelsius(COLDEST_C, unit), 0)} and ${rounded(fromCelsius(HOTTEST_C, unit), 0)} ${degreesOf(unit)}.`.replace(
            '-',
            '−',
          );
      return celsius;
    };
    const airC = degrees(air, 'air', true);
    const lowC = degrees(low, 'low', false);
    const humidityPct = numberIn(humidity);
    if (humidityPct === null || humidityPct < 1 || humidityPct > 100)
      wrong.humidity = 'Give per cent from 1 to 100, such as 70.';
    const ran = hours.trim() === '' ? undefined : numberIn(hours);
    if (ran === null || (ran !== undefined && (ran < 0 || ran > MOST_HOURS)))
      wrong.hours = `Give hours up to ${MOST_HOURS}, such as 8.`;
    const loaded = share.trim() === '' ? undefined : numberIn(share);
    if (loaded === null || (loaded !== undefined && (loaded < 1 || loaded > 100)))
      wrong.share = 'Give per cent from 1 to 100, such as 20.';
    setProblems(wrong);
    if (Object.keys(wrong).length > 0 || airC === undefined || humidityPct === null) return;
    onDone({
      airC,
      humidityPct,
      ...(lowC === undefined ? {} : { lowC }),
      ...(typeof ran === 'number' ? { engineHours: ran } : {}),
      ...(typeof loaded === 'number' ? { loadedShare: loaded / 100 } : {}),
    });
  };
  return (
    <Sheet title="Weather and work" at="foot" onLeave={onLeave}>
      <Field
        numeric
        label="Air"
        hint={degreesOf(unit)}
        value={air}
        onChange={setAir}
        problem={problems.air}
      />
      <Field
        numeric
        label="Humidity"
        hint="%"
        value={humidity}
        onChange={setHumidity}
        problem={problems.humidity}
      />
      <Field
        numeric
        label="Tonight’s low"
        hint={`${degreesOf(unit)}, if known`}
        value={low}
        onChange={setLow}
        problem={problems.low}
      />
      <Field
        numeric
        label="Engine hours since the last drain"
        value={hours}
        onChange={setHours}
        problem={problems.hours}
      />
      <Field
        numeric
        label="Of that the compressor pumps"
        hint="%, usually about 20"
        value={share}
        onChange={setShare}
        problem={problems.share}
      />
      <Txt as="small" tone="quiet">
        To see how much it pumps: time one load and one whole cycle of the governor.
      </Txt>
      <View style={{ flexDirection: 'row', gap: space.step }}>
        <Button title="Back" size="glove" style={{ flex: 1 }} onPress={onLeave} />
        <Button title="Keep" manner="main" size="glove" style={{ flex: 1 }} onPress={done} />
      </View>
    </Sheet>
  );
}
