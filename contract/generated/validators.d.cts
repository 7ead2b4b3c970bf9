import type { ValidateFunction } from 'ajv';
import type { SchemaName } from '../src/schemas';

declare const validators: Record<SchemaName, ValidateFunction>;
export = validators;
