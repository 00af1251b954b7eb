// "npm run dev": the application with reload, for working on it. Data lie where "npm start" keeps them.
import { startApplication } from './application.mjs';
import {
  MissingRequirement,
  requireBuild,
  requireDebian,
  requireNode,
  requirePackages,
  root,
  say,
} from './requirements.mjs';

try {
  requireNode();
  requirePackages();
  if (!process.env.PERIWINKLE_DATABASE_URL) requireDebian('mariadb-server');
  requireBuild();
  const { context } = await import('esbuild');
  const { SERVER_BUILD } = await import('./node-builds.mjs');
  const { createServer } = await import('vite');
  let application = await startApplication();
  process.env.PERIWINKLE_API = `http://127.0.0.1:${application.port}`;
  const vite = await createServer({ configFile: `${root}/web/vite.config.ts` });
  await vite.listen();
  say(`The interface reloads at ${vite.resolvedUrls.local[0]}`);

  // The server is built again at each change and takes its place on the same port.
  let first = true;
  const restart = {
    name: 'restart',
    setup: build =>
      build.onEnd(async result => {
        if (first || result.errors.length > 0) return void (first = false);
        process.env.PERIWINKLE_PORT = String(application.port);
        await application.stop();
        application = await startApplication();
        say('The server has been started again.');
      }),
  };
  const watch = await context({ ...SERVER_BUILD, plugins: [...SERVER_BUILD.plugins, restart] });
  await watch.watch();
  const end = async () => {
    await watch.dispose();
    await vite.close();
    await application.stop();
    process.exit(0);
  };
  for (const signal of ['SIGINT', 'SIGTERM']) process.once(signal, () => void end());
} catch (error) {
  if (!(error instanceof MissingRequirement)) throw error;
  process.stderr.write(`${error.message}\n`);
  process.exit(1);
}
