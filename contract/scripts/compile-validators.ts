/* Compiles every schema to plain JavaScript, so that no validator is built with `eval` in the browser. */
import { Ajv } from 'ajv';
import standaloneCode from 'ajv/dist/standalone';
import addFormats from 'ajv-formats';
import { mkdirSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { doorFormNames, formNames } from '../src/form-names';
import { schemas, type SchemaName } from '../src/schemas';

const folder = join(dirname(fileURLToPath(import.meta.url)), '../generated');
mkdirSync(folder, { recursive: true });

function compile(names: readonly SchemaName[], file: string): void {
  const ajv = new Ajv({
    allErrors: true,
    discriminator: true,
    verbose: true,
    strict: true,
    strictTypes: false,
    code: { source: true, esm: false },
  });
  addFormats(ajv, ['uuid']);
  // The format as it is published takes `urn:uuid:` before it as well, which no column of ids does.
  ajv.addFormat('uuid', /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i);
  const ids: Record<string, string> = {};
  for (const name of names) {
    // A round trip through JSON drops the builder's own symbols, which the compiler does not know.
    ajv.addSchema(JSON.parse(JSON.stringify(schemas[name])) as object, `#${name}`);
    ids[name] = `#${name}`;
  }
  writeFileSync(join(folder, file), standaloneCode(ajv, ids));
  console.log(`compiled ${names.length} validators to generated/${file}`);
}

compile(Object.keys(schemas) as SchemaName[], 'validators.cjs');
compile(formNames, 'form-validators.cjs');
compile(doorFormNames, 'door-form-validators.cjs');
