// The scripts that a script brings in: what modules import, and what workers and classic scripts load by name.

import type { AnyNode } from 'acorn';
import { full } from 'acorn-walk';
import { fileAt, resolveAddress } from '../../base/addresses.js';
import { startsWithAny } from '../../base/phrases.js';
import type { AddedSheet } from './doings.js';
import { stringOf } from './syntax.js';

/** Addresses of the scripts that it brings in, as they are written. */
export function importsOf(program: AnyNode): string[] {
  return [...new Set(addressesImported(program).map(({ address }) => address))];
}

/** The same with the offset of each in the script. */
export function addressesImported(program: AnyNode): { address: string; offset: number }[] {
  const found: { address: string; offset: number }[] = [];
  const note = (node: AnyNode | null | undefined): void => {
    const address = stringOf(node);
    if (address !== undefined) found.push({ address, offset: node!.start });
  };
  full(program, (node) => {
    const one = node as AnyNode;
    if (one.type === 'ImportDeclaration' || one.type === 'ExportAllDeclaration') note(one.source);
    else if (one.type === 'ExportNamedDeclaration') note(one.source);
    else if (one.type === 'ImportExpression') note(one.source);
    else if (
      one.type === 'CallExpression' &&
      one.callee.type === 'Identifier' &&
      one.callee.name === 'importScripts'
    )
      for (const argument of one.arguments) note(argument);
  });
  return found;
}

/** The sheets that a bundler makes of what a script imports. */
export function sheetsImported(program: AnyNode): AddedSheet[] {
  return addressesImported(program).flatMap(({ address, offset }): AddedSheet[] =>
    /^[^?#]+\.css$/i.test(address) && !address.toLowerCase().endsWith('.module.css')
      ? [{ kind: 'import', address, offset }]
      : [],
  );
}

/**
 * The file that is meant by a sheet that a script adds: a page resolves what is linked, a bundler what is imported, and a
 * bare name is that of a package. Out: `undefined` where it is on another host, or a package's.
 */
export function fileOfAddedSheet(
  sheet: Extract<AddedSheet, { address: string }>,
  script: string,
  page: string,
  copyOf: (address: string) => string | undefined,
): string | undefined {
  const { kind, address } = sheet;
  if (kind === 'import' && !startsWithAny(address, ['.', '/'])) return undefined;
  return fileAt(address, kind === 'import' ? script : page, copyOf);
}

/**
 * The files that scripts bring in, each once, through what those bring in.
 * In: `imports`, addresses and the file that holds them; `importsAt`, what a file of the site brings in, `undefined` where
 * there is none.
 */
export function importedFiles(
  imports: readonly string[],
  holder: string,
  importsAt: (path: string) => readonly string[] | undefined,
): string[] {
  const found = new Set<string>();
  const open = imports.map((address) => ({ address, from: holder }));
  for (let one = open.pop(); one !== undefined; one = open.pop()) {
    const resolved = /^(\.{0,2}\/)/.test(one.address) ? resolveAddress(one.address, one.from) : undefined;
    if (resolved?.kind !== 'site' || found.has(resolved.path)) continue;
    const own = importsAt(resolved.path);
    if (own === undefined) continue;
    found.add(resolved.path);
    for (const address of own) open.push({ address, from: resolved.path });
  }
  return [...found];
}
