/* Metro puts a whole barrel, with all it re-exports, into every part of the bundle that asks it for one
   name. This Babel plugin asks the file that holds the name instead. Barrels are the `index.ts` files that
   the workspace's packages name in their `exports`; they hold nothing but re-exports. */
const { existsSync, readFileSync } = require('node:fs');
const { dirname, join, relative, sep } = require('node:path');

const root = join(__dirname, '../..');
const rooms = ['core', 'contract'];

/** Path of the file that `from` names beside the file in `folder`. */
function fileOf(folder, from) {
  const path = join(folder, from);
  const file = [`${path}.ts`, `${path}.tsx`, join(path, 'index.ts'), path].find((each) =>
    existsSync(each),
  );
  if (!file) throw new Error(`${from} is re-exported in ${folder}, and there is no such file`);
  return file;
}

/** What a barrel re-exports: its own name → the file and the name there. */
function reExportsOf(file) {
  const held = new Map();
  const text = readFileSync(file, 'utf8');
  for (const [, isType, names, from] of text.matchAll(
    /^export (type )?\{([^}]*)\} from '(\.[^']*)';$/gm,
  )) {
    const target = fileOf(dirname(file), from);
    for (const entry of names.split(',')) {
      const words = entry.trim().split(/\s+/);
      if (words[0] === '') continue;
      if (words[0] === 'type' || isType) continue;
      held.set(words[2] ?? words[0], { file: target, name: words[0] });
    }
  }
  return held;
}

/** Every barrel by the name that other rooms import it by. */
function barrels() {
  const found = new Map();
  for (const room of rooms) {
    const folder = join(root, room);
    const { name, exports } = JSON.parse(readFileSync(join(folder, 'package.json'), 'utf8'));
    for (const [path, file] of Object.entries(exports))
      if (file.endsWith('.ts')) found.set(join(name, path), join(folder, file));
  }
  return found;
}

/** What makes an earlier result of this plugin out of date: its own text and that of the barrels. */
function versionOfBarrels() {
  return [__filename, ...barrels().values()].map((file) => readFileSync(file, 'utf8')).join('\n');
}

function straightImports({ types }) {
  const files = barrels();
  const known = new Map();
  const heldBy = (source) => {
    const file = files.get(source);
    if (!file) return null;
    if (!known.has(file)) known.set(file, reExportsOf(file));
    return known.get(file);
  };

  /** Parts the specifiers of one statement by the file that holds each; null where none is re-exported. */
  const partedBy = (statement, nameOf, fromFile) => {
    const held = statement.source && heldBy(statement.source.value);
    if (!held) return null;
    const bySource = new Map();
    for (const specifier of statement.specifiers) {
      const found = held.get(nameOf(specifier));
      const source = found
        ? `./${relative(dirname(fromFile), found.file).split(sep).join('/')}`
        : statement.source.value;
      if (found)
        specifier[specifier.type === 'ImportSpecifier' ? 'imported' : 'local'].name = found.name;
      bySource.set(source, [...(bySource.get(source) ?? []), specifier]);
    }
    return [...bySource];
  };

  return {
    name: 'straight-imports',
    visitor: {
      Program(program, state) {
        for (const path of program.get('body')) {
          const statement = path.node;
          if (path.isImportDeclaration() && statement.importKind !== 'type') {
            const parted = partedBy(statement, (each) => each.imported?.name, state.filename);
            if (parted)
              path.replaceWithMultiple(
                parted.map(([source, specifiers]) =>
                  types.importDeclaration(specifiers, types.stringLiteral(source)),
                ),
              );
          }
          if (path.isExportNamedDeclaration() && statement.exportKind !== 'type') {
            const parted = partedBy(statement, (each) => each.local?.name, state.filename);
            if (parted)
              path.replaceWithMultiple(
                parted.map(([source, specifiers]) =>
                  types.exportNamedDeclaration(null, specifiers, types.stringLiteral(source)),
                ),
              );
          }
        }
        program.scope.crawl();
      },
    },
  };
}

module.exports = { barrels, reExportsOf, straightImports, versionOfBarrels };
