import { readFileSync, readdirSync } from 'node:fs';
import { join, relative, sep } from 'node:path';
import type { TmplAstBoundAttribute, TmplAstBoundText, TmplAstText, TmplAstTextAttribute } from '@angular/compiler';
import { parseTemplate, TmplAstRecursiveVisitor, tmplAstVisitAll } from '@angular/compiler';
import ts from 'typescript';

/** Something that a person may read: a literal of the code, words of a template, a line of a page of docs. */
export interface Text {
  /** Path from the root, with forward slashes. */
  readonly path: string;
  /** From 1. */
  readonly line: number;
  /** As written; where a value is put in, … stands for it. */
  readonly text: string;
}

const FOLDERS = ['packages', 'demo', 'docs'];
const PASSED_BY = /(^|\/)(node_modules|dist|testing|\.angular)\/|\.spec\.ts$/;

/** All texts of the code, the templates and the docs below a folder. */
export function collectTexts(root: string): Text[] {
  const files = FOLDERS.flatMap((folder) =>
    readdirSync(join(root, folder), { recursive: true, withFileTypes: true })
      .filter((entry) => entry.isFile())
      .map((entry) => relative(root, join(entry.parentPath, entry.name)).split(sep).join('/')),
  ).filter((path) => !PASSED_BY.test(path));
  return [...files, 'README.md', 'stravel'].sort().flatMap((path) => {
    const source = (): string => readFileSync(join(root, path), 'utf8');
    if (path.endsWith('.ts')) return ofCode(path, source());
    if (path.endsWith('.html')) return ofTemplate(path, source(), 1);
    return path.endsWith('.md') || path.endsWith('.schema.json') || path === 'stravel' ? ofLines(path, source()) : [];
  });
}

function ofLines(path: string, source: string): Text[] {
  return source.split('\n').map((text, index) => ({ path, line: index + 1, text }));
}

function ofCode(path: string, source: string): Text[] {
  const file = ts.createSourceFile(path, source, ts.ScriptTarget.Latest, true);
  const found: Text[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node) || ts.isExportDeclaration(node) || ts.isLiteralTypeNode(node)) return;
    const line = file.getLineAndCharacterOfPosition(node.getStart(file)).line + 1;
    if (ts.isStringLiteralLike(node)) {
      const parent = node.parent;
      if (ts.isPropertyAssignment(parent) && parent.name.getText(file) === 'template') {
        found.push(...ofTemplate(path, node.text, line));
      } else {
        found.push({ path, line, text: node.text });
      }
      return;
    }
    if (ts.isTemplateExpression(node)) {
      const text = node.head.text + node.templateSpans.map((span) => `…${span.literal.text}`).join('');
      found.push({ path, line, text });
    }
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}

/** @param from the line on which the template begins */
function ofTemplate(path: string, source: string, from: number): Text[] {
  const found: Text[] = [];
  const at = (line: number, text: string): void => {
    if (text.trim()) found.push({ path, line: from + line, text: text.trim().replace(/\s+/g, ' ') });
  };
  /** Literals inside an expression: 'one' : 'many' of a choice. */
  const literals = (line: number, expression: string): void => {
    for (const [, single, double] of expression.matchAll(/'((?:[^'\\]|\\.)*)'|"((?:[^"\\]|\\.)*)"/g))
      at(line, single ?? double ?? '');
  };
  class Reader extends TmplAstRecursiveVisitor {
    override visitText(text: TmplAstText): void {
      at(text.sourceSpan.start.line, text.value);
    }
    override visitBoundText(text: TmplAstBoundText): void {
      const source = text.sourceSpan.toString();
      at(text.sourceSpan.start.line, source.replace(/\{\{.*?\}\}/gs, '…'));
      for (const [, inner] of source.matchAll(/\{\{(.*?)\}\}/gs)) literals(text.sourceSpan.start.line, inner ?? '');
    }
    override visitTextAttribute(attribute: TmplAstTextAttribute): void {
      if (!['class', 'type', 'id', 'for', 'src', 'href'].includes(attribute.name)) {
        at(attribute.sourceSpan.start.line, attribute.value);
      }
    }
    override visitBoundAttribute(attribute: TmplAstBoundAttribute): void {
      literals(
        attribute.sourceSpan.start.line,
        attribute.sourceSpan
          .toString()
          .replace(/^[^=]*=["']/, '')
          .replace(/["']$/, ''),
      );
    }
  }
  tmplAstVisitAll(new Reader(), parseTemplate(source, path).nodes);
  return found;
}
