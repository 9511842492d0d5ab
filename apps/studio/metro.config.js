const { getDefaultConfig } = require('expo/metro-config');

const config = getDefaultConfig(__dirname);

// HarfBuzz's loader names two Node modules that it does not use in a browser.
const resolve = config.resolver.resolveRequest;
config.resolver.resolveRequest = (context, name, platform) => {
  const inHarfBuzz = context.originModulePath.includes('harfbuzzjs');
  if (inHarfBuzz && ['fs', 'path', 'crypto', 'node:fs', 'node:path'].includes(name)) return { type: 'empty' };
  return (resolve ?? context.resolveRequest)(context, name, platform);
};

module.exports = config;
