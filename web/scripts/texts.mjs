// Every text of the interface a reader can see or hear, as JSON lines of [file, line, text]: the words test reads them.
import { readdirSync, readFileSync } from "node:fs"
import { join } from "node:path"
import ts from "typescript"

const files = readdirSync("src", { recursive: true })
  .map(String)
  .filter((f) => /\.tsx?$/.test(f) && !/\.test\.|generated|testing/.test(f))

const words = (text) => text.replace(/\s+/g, " ").trim()
const isText = (text) => /[A-Za-z]{2}/.test(text) && (/ /.test(text) || /^[A-Z]/.test(text))
// attributes and properties that hold names of the machine's own
const NOT_READ = new Set(
  (
    "path to href src key id queryKey type variant size " +
    "name d viewBox transform templateColumns gridTemplateColumns style className fill stroke " +
    "css bg color borderColor from rel"
  ).split(" "),
)

for (const file of files) {
  const source = ts.createSourceFile(file, readFileSync(join("src", file), "utf8"), ts.ScriptTarget.Latest, true)
  const say = (node, text) => {
    const line = source.getLineAndCharacterOfPosition(node.getStart()).line + 1
    if (isText(words(text))) console.log(JSON.stringify([file, line, words(text)]))
  }
  const walk = (node) => {
    if (ts.isImportDeclaration(node) || ts.isTypeNode(node)) return
    if (ts.isJsxAttribute(node) && NOT_READ.has(node.name.getText())) return
    if (ts.isPropertyAssignment(node) && NOT_READ.has(node.name.getText())) return
    if (ts.isJsxText(node)) say(node, node.text)
    else if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) say(node, node.text)
    else if (ts.isTemplateExpression(node))
      say(node, [node.head.text, ...node.templateSpans.map((s) => s.literal.text)].join("{}"))
    ts.forEachChild(node, walk)
  }
  walk(source)
}
