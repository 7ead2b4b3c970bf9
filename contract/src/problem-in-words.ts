import type { ErrorObject, ValidateFunction } from 'ajv';
import type { FieldProblem } from './errors';

/**
 * Runs a compiled validator and puts what it found in words.
 *
 * @returns one problem per wrong field, each saying what would be right; none where the value fits
 */
export function problemsOf(validate: ValidateFunction, value: unknown): FieldProblem[] {
  if (validate(value)) return [];
  const byField = new Map<string, FieldProblem>();
  for (const error of validate.errors ?? []) {
    const problem = problemInWords(error);
    if (problem && !byField.has(problem.field)) byField.set(problem.field, problem);
  }
  const problems = [...byField.values()];
  // “This may also be null” helps nobody who has filled part of it in: the parts' own problems do.
  return problems.filter(
    (problem) => !problems.some((other) => other.field.startsWith(`${problem.field}.`)),
  );
}

function problemInWords(error: ErrorObject): FieldProblem | null {
  const at = error.instancePath.slice(1).replaceAll('/', '.');
  const within = (name: string) => (at ? `${at}.${name}` : name);
  const params = error.params as Record<string, unknown>;
  const title = (error.parentSchema as { title?: string } | undefined)?.title;
  const name = title ?? (at === '' ? 'The request' : at.split('.').at(-1));
  switch (error.keyword) {
    case 'required': {
      const missing = String(params.missingProperty);
      const properties = (
        error.parentSchema as {
          properties?: Record<string, { title?: string }>;
        }
      ).properties;
      return {
        field: within(missing),
        message: `${properties?.[missing]?.title ?? missing} is missing.`,
      };
    }
    case 'additionalProperties': {
      const extra = String(params.additionalProperty);
      return {
        field: within(extra),
        message: `${extra} is not a field of this record.`,
      };
    }
    case 'minimum':
      return {
        field: at,
        message: `${name} must be at least ${String(params.limit)}.`,
      };
    case 'exclusiveMinimum':
      return {
        field: at,
        message: `${name} must be more than ${String(params.limit)}.`,
      };
    case 'maximum':
      return {
        field: at,
        message: `${name} must be at most ${String(params.limit)}.`,
      };
    case 'minLength':
      return Number(params.limit) > 1
        ? {
            field: at,
            message: `${name} needs at least ${String(params.limit)} characters.`,
          }
        : { field: at, message: `${name} is missing.` };
    case 'maxLength':
      return {
        field: at,
        message: `${name} may have at most ${String(params.limit)} characters.`,
      };
    case 'minItems':
      return {
        field: at,
        message: `${name}: give at least ${String(params.limit)}.`,
      };
    case 'maxItems':
      return {
        field: at,
        message: `${name}: give at most ${String(params.limit)}.`,
      };
    case 'minProperties':
      return { field: at, message: 'Nothing to change was given.' };
    case 'pattern':
      return params.pattern === '\\S'
        ? { field: at, message: `${name} is missing.` }
        : {
            field: at,
            message: `${name} may have letters, digits, dot, dash and underscore only.`,
          };
    case 'format':
      return { field: at, message: `${name} must be a UUID.` };
    case 'enum':
      return {
        field: at,
        message: `${name} must be one of: ${(params.allowedValues as string[]).join(', ')}.`,
      };
    case 'const':
      return {
        field: at,
        message: `${name} must be ${String(params.allowedValue)}.`,
      };
    case 'discriminator':
      return {
        field: within(String(params.tag)),
        message:
          typeof params.tagValue === 'string'
            ? `${name}: "${params.tagValue.slice(0, 40)}" is no known ${String(params.tag)}.`
            : `${name}: its ${String(params.tag)} must be one of the known words.`,
      };
    case 'type':
      return {
        field: at,
        message: `${name} must be of type ${String(params.type)}.`,
      };
    case 'anyOf':
    case 'oneOf':
      // The branch's own errors already name the field.
      return null;
    default:
      return {
        field: at,
        message: `${name} ${error.message ?? 'is not right'}.`,
      };
  }
}
