const { join } = require('node:path');
const { getDefaultConfig } = require('expo/metro-config');

const config = getDefaultConfig(__dirname);

/** What HarfBuzz's loader names of Node and does not use in a browser. */
const OF_NODE = ['fs', 'path', 'crypto', 'node:fs', 'node:path'];
const TEMPLATES = join(__dirname, '../../packages/templates/built/index.js');

const resolve = config.resolver.resolveRequest;
config.resolver.resolveRequest = (context, name, platform) => {
  const { originModulePath: from } = context;
  if (from.includes('harfbuzzjs') && OF_NODE.includes(name)) return { type: 'empty' };
  // Zod's messages in fifty languages are a tenth of the app, and never shown: the app has words of its own.
  if (/[\\/]zod[\\/]v4[\\/]/.test(from) && name === '../locales/index.js') return { type: 'empty' };
  // The built-in templates were checked when the app was built.
  if (name === '@fresh-reel/templates') return { type: 'sourceFile', filePath: TEMPLATES };
  return (resolve ?? context.resolveRequest)(context, name, platform);
};

module.exports = config;
