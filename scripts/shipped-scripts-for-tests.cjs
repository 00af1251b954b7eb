// What `periwinkle:shipped` is where tests run: bundled by another process, since test runners change how modules are found.
const { execFileSync } = require('node:child_process');
const { join } = require('node:path');

const script = `import(${JSON.stringify(`file://${join(__dirname, 'shipped-scripts.mjs')}`)}).then(({ shippedScripts }) => process.stdout.write(JSON.stringify(shippedScripts())))`;
exports.SCRIPTS = JSON.parse(execFileSync(process.execPath, ['-e', script], { maxBuffer: 1e8, encoding: 'utf8' }));
