// In a handler attribute the element and its document are the scope: `onclick="className = 'open'"`. Names that a script
// does not have for itself are written out as what they mean there; anywhere else they mean nothing.

import type { AnyNode } from 'acorn';
import { full } from 'acorn-walk';

const OF_ELEMENT = `className classList setAttribute setAttributeNS removeAttribute removeAttributeNS toggleAttribute
innerHTML outerHTML textContent insertAdjacentHTML insertAdjacentElement append prepend appendChild insertBefore
replaceWith replaceChildren removeChild attributeStyleMap attributes style dataset id hidden parentNode parentElement
children childNodes firstChild firstElementChild lastChild lastElementChild nextSibling nextElementSibling
previousSibling previousElementSibling closest`;
const OF_DOCUMENT = `body documentElement forms images links styleSheets getElementById querySelector querySelectorAll
getElementsByTagName getElementsByClassName getElementsByName`;

const SCOPES = new Map<string, AnyNode>([
  ...OF_ELEMENT.split(/\s+/).map((name): [string, AnyNode] => [
    name,
    { type: 'ThisExpression', start: 0, end: 0 },
  ]),
  ...OF_DOCUMENT.split(/\s+/).map((name): [string, AnyNode] => [
    name,
    { type: 'Identifier', name: 'document', start: 0, end: 0 },
  ]),
]);

/** Out: the tree, changed. */
export function writeOutScope(program: AnyNode): void {
  const declared = new Set<string>();
  const used: Extract<AnyNode, { type: 'Identifier' }>[] = [];
  const use = (node: AnyNode): void => {
    if (node.type === 'Identifier' && SCOPES.has(node.name)) used.push(node);
  };
  const declare = (pattern: AnyNode): void =>
    full(pattern, (node) => {
      const one = node as AnyNode;
      if (one.type === 'Identifier') declared.add(one.name);
    });
  full(program, (node) => {
    const one = node as AnyNode;
    if (one.type === 'VariableDeclarator') declare(one.id);
    else if (one.type === 'CallExpression') use(one.callee as AnyNode);
    else if (one.type === 'MemberExpression') use(one.object as AnyNode);
    else if (one.type === 'AssignmentExpression' || one.type === 'UpdateExpression')
      use(one.type === 'UpdateExpression' ? (one.argument as AnyNode) : (one.left as AnyNode));
    else if (one.type === 'ImportSpecifier' || one.type === 'ImportDefaultSpecifier')
      declared.add(one.local.name);
    if ('params' in one) for (const parameter of one.params) declare(parameter);
    if ('id' in one && one.id != null && one.id.type === 'Identifier') declared.add(one.id.name);
  });
  for (const node of used)
    if (!declared.has(node.name)) {
      const { name, start, end } = node;
      const property = { type: 'Identifier', name, start, end };
      const object = { ...SCOPES.get(name)!, start, end };
      Object.assign(node, { type: 'MemberExpression', object, property, computed: false, optional: false });
    }
}
