// Compiles what tests load, and gives each module its own names for what the language brings along: Jest looks every
// global name up anew, each time it is used, which makes arithmetic several times slower than the product's own.
import { createTransformer as createSwc } from '@swc/jest';

const BUILT_IN = [
  'Array',
  'ArrayBuffer',
  'BigInt',
  'Boolean',
  'DataView',
  'Error',
  'Float32Array',
  'Float64Array',
  'Infinity',
  'Int16Array',
  'Int32Array',
  'Int8Array',
  'JSON',
  'Map',
  'Math',
  'NaN',
  'Number',
  'Object',
  'Promise',
  'Set',
  'String',
  'Symbol',
  'Uint16Array',
  'Uint32Array',
  'Uint8Array',
  'Uint8ClampedArray',
  'WeakMap',
  'isNaN',
  'undefined',
];

/** Names that a module gives to something of its own stay its own. */
const declares = (code, name) =>
  new RegExp(
    `\\b(?:const|let|var|function|class)\\s+${name}\\b|\\b(?:import|as)\\b[^;]*\\b${name}\\b[^;]*\\bfrom\\b`,
  ).test(code);

function createTransformer(options) {
  const swc = createSwc(options);
  const named = (code) => {
    const names = BUILT_IN.filter((name) => new RegExp(`\\b${name}\\b`).test(code) && !declares(code, name));
    // On the first line, so that line numbers stay.
    return names.length > 0 ? `const { ${names.join(', ')} } = globalThis;${code}` : code;
  };
  const withNames = (result) => ({ ...result, code: named(result.code) });
  return {
    ...swc,
    process: (...args) => withNames(swc.process(...args)),
    processAsync: async (...args) => withNames(await swc.processAsync(...args)),
    getCacheKey: (...args) => `${swc.getCacheKey(...args)}-named`,
  };
}

export default { createTransformer };
