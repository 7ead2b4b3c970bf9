const { expect, test } = require('@jest/globals');
const { transformSync } = require('@babel/core');
const { readFileSync } = require('node:fs');
const { join } = require('node:path');
const ts = require('typescript');
const { barrels, reExportsOf, straightImports } = require('./straightImports');

/** The module as the plugin hands it on, one statement a line. */
function straightened(code) {
  const { code: made } = transformSync(code, {
    filename: join(__dirname, '../src/yard/YardScreen.js'),
    plugins: [straightImports],
    babelrc: false,
    configFile: false,
  });
  return made.replaceAll('"', "'").split('\n');
}

test('asks each name of the file that holds it', () => {
  expect(
    straightened(
      "import { sayPressure, fromPsi as psi } from '@keen-bleed/core';\nsayPressure(psi);",
    ),
  ).toEqual([
    "import { sayPressure } from './../../../core/src/units/say.ts';",
    "import { fromPsi as psi } from './../../../core/src/units/pressure.ts';",
    'sayPressure(psi);',
  ]);
});

test('hands a name on from the file that holds it, under the name it has there', () => {
  expect(straightened("export { sayPressure as said } from '@keen-bleed/core';")).toEqual([
    "export { sayPressure as said } from './../../../core/src/units/say.ts';",
  ]);
});

test('leaves a name that the barrel makes itself, and every other package, as they are', () => {
  const code = [
    "import { checkForm } from '@keen-bleed/contract/forms';",
    "import { useState } from 'react';",
    'checkForm(useState);',
  ];
  expect(straightened(code.join('\n'))).toEqual(code);
});

/** The values a barrel re-exports, as TypeScript's own parser reads them. */
function valuesOf(file) {
  const source = ts.createSourceFile(file, readFileSync(file, 'utf8'), ts.ScriptTarget.Latest);
  return source.statements
    .filter((each) => ts.isExportDeclaration(each) && each.moduleSpecifier && !each.isTypeOnly)
    .flatMap((each) =>
      each.exportClause.elements.filter((one) => !one.isTypeOnly).map((one) => one.name.text),
    );
}

test.each([...barrels()])('finds every value of %s', (_, file) => {
  expect([...reExportsOf(file).keys()].sort()).toEqual(valuesOf(file).sort());
});
