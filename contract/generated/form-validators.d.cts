import type { ValidateFunction } from 'ajv';
import type { FormName } from '../src/form-names';

declare const validators: Record<FormName, ValidateFunction>;
export = validators;
