// Prints the texts of the screens with where they stand; see tools/sentences.py.
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import ts from "typescript";

// What a tester reads stands in these attributes, or between tags.
const READ = new Set([
  "label", "says", "title", "hint", "placeholder", "aria-label", "unit", "alt", "what", "error",
  "add", "asks", "is", "words", "name", "footing", "children", "help", "does",
]); // biome-ignore format: words of a list, several a line

const LOOK = /min-h-|border-|text-\[|var\(--|^\/|cursor-pointer|rounded-|font-semibold/;

/** Every source of the screens, tests and what is generated left out. */
function* sources(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* sources(path);
    else if (/[.]tsx?$/.test(path) && !/[.](test|gen)[.]/.test(path)) yield path;
  }
}

/** The text of a node as it is read, with {…} for what is put in. */
function textOf(node) {
  if (ts.isJsxText(node) || ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node))
    return node.text;
  if (!ts.isTemplateExpression(node)) return "";
  return node.head.text + node.templateSpans.map((span) => `{…}${span.literal.text}`).join("");
}

function isCode(node) {
  const { parent } = node;
  if (ts.isImportDeclaration(parent) || ts.isLiteralTypeNode(parent)) return true;
  for (let up = parent; up; up = up.parent)
    if (ts.isJsxAttribute(up)) return !READ.has(up.name.getText());
    else if (ts.isCallExpression(up) && up.expression.getText() === "document.querySelector") return true;
  return false;
}

for (const path of sources("src")) {
  const file = ts.createSourceFile(path, readFileSync(path, "utf8"), ts.ScriptTarget.Latest, true);
  const visit = (node) => {
    const text = textOf(node).replace(/\s+/g, " ").trim();
    const label = ts.isJsxText(node) || (node.parent && ts.isJsxAttribute(node.parent));
    if (/\p{L}{2}/u.test(text) &&
      !LOOK.test(text) && (label || text.includes(" ")) && !isCode(node)) {
      const { line } = file.getLineAndCharacterOfPosition(node.getStart());
      console.log(`web/${path}:${line + 1}: ${text}`);
    }
    ts.forEachChild(node, visit);
  };
  visit(file);
}
