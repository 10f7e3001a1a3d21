/** The length of every function written by hand under src, as JSON lines: file, name, line, lines, component. */
import { readdirSync, readFileSync } from "node:fs";
import { join, relative } from "node:path";
import ts from "typescript";

const ROOT = new URL("../src/", import.meta.url).pathname;

function* files(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* files(path);
    else if (/\.tsx?$/.test(path) && !/(\.test\.ts|schema\.d\.ts)$/.test(path)) yield path;
  }
}

/** Functions at the top of a file and methods of classes: what a reader meets as one thing. */
function* functions(source) {
  const at = (node) => source.getLineAndCharacterOfPosition(node).line + 1;
  const told = (name, node) => ({ name, line: at(node.getStart(source)), end: at(node.getEnd()) });
  for (const node of source.statements) {
    if (ts.isFunctionDeclaration(node) && node.name) yield told(node.name.text, node);
    if (ts.isClassDeclaration(node))
      for (const m of node.members)
        if (ts.isMethodDeclaration(m)) yield told(m.name.getText(source), m);
    if (ts.isVariableStatement(node))
      for (const d of node.declarationList.declarations) {
        let made = d.initializer;
        while (made && ts.isCallExpression(made)) made = made.arguments[0];
        if (made && (ts.isArrowFunction(made) || ts.isFunctionExpression(made)))
          yield told(d.name.getText(source), node);
      }
  }
}

for (const path of files(ROOT)) {
  const text = readFileSync(path, "utf8");
  const source = ts.createSourceFile(path, text, ts.ScriptTarget.Latest, true);
  const component = path.endsWith(".tsx");
  for (const f of functions(source))
    console.log(
      JSON.stringify({
        file: relative(ROOT, path),
        name: f.name,
        line: f.line,
        lines: f.end - f.line + 1,
        component: component && /^[A-Z]/.test(f.name),
      }),
    );
}
