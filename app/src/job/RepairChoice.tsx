import type { Repair } from '@keen-bleed/contract';
import { repairWords } from '@keen-bleed/core';
import { Choice } from '../ui/Choice';

const REPAIRS: readonly Repair[] = ['replaced', 'cleaned', 'reseated', 'remade', 'adjusted'];

interface RepairChoiceProps {
  label: string;
  value: Repair | null;
  onChange: (value: Repair) => void;
}

/** How a part is mended. Nothing is chosen beforehand. */
export const RepairChoice = ({ label, value, onChange }: RepairChoiceProps) => (
  <Choice
    label={label}
    options={REPAIRS.map((each) => ({ value: each, title: repairWords[each] }))}
    value={value ?? ('' as Repair)}
    onChange={onChange}
    size="glove"
  />
);
