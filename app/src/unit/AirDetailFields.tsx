import type { Control } from 'react-hook-form';
import { formBoxes } from './formBoxes';
import { Part, Row } from './FormPart';
import type { Fitted, UnitForm } from './unitForm';

interface AirDetailFieldsProps {
  control: Control<UnitForm>;
  problems: Readonly<Record<string, string>>;
  volumeUnit: UnitForm['volumeUnit'];
}

const FITTED: readonly { value: Fitted; title: string }[] = [
  { value: 'usual', title: 'not known' },
  { value: 'fitted', title: 'fitted' },
  { value: 'none', title: 'none' },
];

/** What is known of a unit's compressor and valves beyond tanks and chambers. */
export function AirDetailFields({ control, problems, volumeUnit }: AirDetailFieldsProps) {
  const { text, segments } = formBoxes(control, problems);
  return (
    <Part
      title="Compressor and valves"
      lead="Only what you know. What is left open is taken to be as it usually is on such a unit."
    >
      <Row>
        {text('displacement', 'Displacement', volumeUnit === 'L' ? 'L a turn' : 'in³ a turn')}
        {text('turnsPerEngineTurn', 'Drive ratio', 'to the engine')}
        {text('clearancePercent', 'Clearance', '%')}
      </Row>
      <Row>
        {segments('modulatingValve', 'Spring brake modulating valve', FITTED)}
        {segments('antiCompounding', 'Anti-compounding', FITTED)}
      </Row>
      <Row>
        {segments('stopLampSwitches', 'Stop-lamp switches', [
          { value: 'usual', title: 'one' },
          { value: 'two', title: 'one a circuit' },
        ])}
        {segments('lowAirSwitches', 'Low-air switches', [
          { value: 'usual', title: 'one a tank' },
          { value: 'supply-tank', title: 'one, supply tank' },
        ])}
      </Row>
      <Row>
        {segments('dryerPurge', 'Dryer purges from', [
          { value: 'usual', title: 'its own volume' },
          { value: 'service-tank', title: 'a service tank' },
        ])}
      </Row>
    </Part>
  );
}
