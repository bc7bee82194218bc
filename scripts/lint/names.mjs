/**
 * Names from outside are never keys of plain objects: `__proto__` and `constructor` are names too. Tables by name are
 * made with `byName` (core/measure/names.ts), and read from JSON with `under`; a Map does as well.
 */
const WHY =
  'A name from outside may be __proto__ or constructor: make the table with byName() of core/measure, or use a Map.';

const isEmptyObject = node => node?.type === 'ObjectExpression' && node.properties.length === 0;

/** `Record<string, …>`, bare or inside Partial and Readonly. */
function isRecordOfStrings(type) {
  if (type?.type !== 'TSTypeReference') return false;
  const [first] = type.typeArguments?.params ?? [];
  if (type.typeName?.name === 'Record') return first?.type === 'TSStringKeyword';
  return ['Partial', 'Readonly'].includes(type.typeName?.name) && isRecordOfStrings(first);
}

const rule = {
  create(context) {
    const empty = new Set();
    const report = node => context.report({ node, message: WHY });
    return {
      CallExpression(node) {
        const { callee } = node;
        if (
          callee.type === 'MemberExpression' &&
          callee.object.name === 'Object' &&
          callee.property.name === 'fromEntries'
        )
          report(node);
        // useState<Record<string, …>>({}) and the like.
        if (
          node.typeArguments?.params.some(isRecordOfStrings) &&
          node.arguments.some(a => a.type === 'ObjectExpression')
        )
          report(node);
      },
      VariableDeclarator(node) {
        if (node.init?.type !== 'ObjectExpression') return;
        if (isRecordOfStrings(node.id.typeAnnotation?.typeAnnotation)) report(node);
        else if (isEmptyObject(node.init) && node.id.type === 'Identifier') empty.add(node.id.name);
      },
      AssignmentPattern(node) {
        if (isEmptyObject(node.right) && isRecordOfStrings(node.left.typeAnnotation?.typeAnnotation))
          report(node);
      },
      AssignmentExpression(node) {
        const { left } = node;
        if (left.type === 'MemberExpression' && left.computed && empty.has(left.object.name)) report(node);
      },
    };
  },
};

export default { meta: { name: 'cocotte' }, rules: { 'names-from-outside': rule } };
