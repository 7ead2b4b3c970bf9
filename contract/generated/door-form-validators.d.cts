import type { ValidateFunction } from 'ajv';
import type { DoorFormName } from '../src/form-names';

declare const validators: Record<DoorFormName, ValidateFunction>;
export = validators;
